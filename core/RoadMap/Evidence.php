<?php

declare(strict_types=1);

namespace Ortholex\Core\RoadMap;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\Report\Charts;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Core\Tuning\TermVerdict;

/** What a flight tells a tune. */
final readonly class Evidence
{
    /**
     * @param SettingSet               $flown    what it was flown with
     * @param array<string, AxisPlant> $plants   by axis, of those that tell
     * @param array<string, float>     $peaks    of the steps that can be believed
     * @param array<string, TermState> $verdicts by axis
     * @param array<string, float>     $lagsMs   by axis
     * @param list<float>              $rotorHz
     */
    public function __construct(
        public SettingSet $flown,
        public array $plants,
        public array $peaks,
        public array $verdicts,
        public array $lagsMs,
        public array $rotorHz,
    ) {
    }

    /** @param SettingSet $flown under current names */
    public static function of(Report $report, Charts $charts, SettingSet $flown): self
    {
        $peaks = [];
        foreach ($report->steps as $axis => $step) {
            if (null !== $step->numbers && Grade::None !== $step->confidence->grade) {
                $peaks[$axis] = $step->numbers->peak;
            }
        }

        return new self(
            $flown,
            $charts->plants,
            $peaks,
            array_map(static fn (TermVerdict $v): TermState => $v->verdict, $report->verdicts),
            array_map(static fn (AxisLag $l): float => $l->ms, $report->lags),
            $charts->rotorHz,
        );
    }
}
