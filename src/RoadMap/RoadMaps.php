<?php

declare(strict_types=1);

namespace Ortholex\App\RoadMap;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\JudgedLog;
use Ortholex\App\Report\WorkedOut;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\RoadMap\Evidence;
use Ortholex\Core\RoadMap\RoadMap;

/** Where each craft stands on its road, told from the flight that can be believed most. */
final readonly class RoadMaps
{
    public function __construct(
        private FlownLogs $flown,
        private JudgedLog $judged,
        private AnalysisStore $analyses,
        private CurrentNames $names,
        private WorkedOut $workedOut,
    ) {
    }

    /** Null while nothing is known of the craft. */
    public function of(Craft $craft): ?RoadMap
    {
        if (!$craft->isKnown()) {
            return null;
        }
        $plan = $this->flown->plan($craft);
        $log = $this->judged->best($craft);
        $now = $this->names->of($craft, $craft->settings);
        $from = [FlightAnalysis::VERSION, $plan->why, $plan->since, $now, null === $log ? null : $this->analyses->name($log)];

        return $this->workedOut->once('road_map', $from, fn (): RoadMap => RoadMap::of($plan, $now, $this->evidence($log)));
    }

    private function evidence(?Log $log): ?Evidence
    {
        return null === $log ? null : Evidence::of($this->analyses->report($log), $this->analyses->charts($log), $log->settings);
    }
}
