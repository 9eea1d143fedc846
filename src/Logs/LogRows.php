<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\Core\Report\StepReport;

/** A craft's logs as sheet 51 lists them. */
final readonly class LogRows
{
    public function __construct(private LogBook $book, private AnalysisStore $analyses)
    {
    }

    /** @return list<LogRow> newest first */
    public function of(Craft $craft): array
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
