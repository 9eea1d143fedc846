<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Finding\Weight;
use Ortholex\Core\Report\StepReport;

/** A craft's logs as sheet 51 lists them. */
final readonly class LogRows
{
    public function __construct(private AnalysisStore $analyses)
    {
    }

    /**
     * @param list<Log> $logs of one craft, newest first
     *
     * @return list<LogRow> of so many of them
     */
    public function of(array $logs, int $most = \PHP_INT_MAX): array
    {
        $rows = [];
        foreach (\array_slice($logs, 0, $most) as $i => $log) {
            $report = $this->analyses->has($log) ? $this->analyses->report($log) : null;
            $peaks = array_map(static fn (StepReport $s): ?float => $s->numbers?->peak, $report->steps ?? []);
            $wrong = array_filter($report->findings ?? [], static fn (Finding $f): bool => Weight::Wrong === $f->weight);
            $rows[] = new LogRow(
                $log,
                $peaks,
                isset($logs[$i + 1]) ? LogBook::difference($logs[$i + 1], $log) : [],
                array_values(array_map(static fn (Finding $f): Fact => $f->what, $wrong)),
            );
        }

        return $rows;
    }
}
