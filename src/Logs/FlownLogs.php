<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\Core\LogCheck\FlightPlan;
use Ortholex\Core\LogCheck\FlownLog;
use Ortholex\Core\Report\StepReport;

/** What a craft's logs tell, one after the other. */
final readonly class FlownLogs
{
    /** Logs that a plan looks back over. */
    private const LOOKED_BACK = 12;

    public function __construct(private LogBook $book, private AnalysisStore $analyses)
    {
    }

    /** Which card to fly next, by what the newest logs can be used for. */
    public function plan(Craft $craft): FlightPlan
    {
        $flown = [];
        foreach (\array_slice($this->book->of($craft), 0, self::LOOKED_BACK) as $log) {
            if ($this->analyses->has($log)) {
                $flown[] = new FlownLog($log->settings, $this->analyses->report($log)->adequacy);
            }
        }

        return FlightPlan::of($craft->settings, $flown);
    }

    /** @return list<LogRow> newest first */
    public function rows(Craft $craft): array
    {
        $logs = $this->book->of($craft);
        $rows = [];
        foreach ($logs as $i => $log) {
            $steps = $this->analyses->has($log) ? $this->analyses->report($log)->steps : [];
            $peaks = array_map(static fn (StepReport $s): ?float => $s->numbers?->peak, $steps);
            $rows[] = new LogRow($log, $peaks, isset($logs[$i + 1]) ? LogBook::difference($logs[$i + 1], $log) : []);
        }

        return $rows;
    }
}
