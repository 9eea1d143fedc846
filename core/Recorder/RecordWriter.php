<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

use Ortholex\Core\FlightLog\FlightLog;

/** Writes a log as a recording. */
final readonly class RecordWriter
{
    /** @param resource $stream */
    public static function write(FlightLog $log, $stream): void
    {
        $names = $log->names();
        $pages = new RecordPages($log->clock->rateHz, $names, $log->settings);
        $long = RecordPages::samples($log->clock->rateHz);
        foreach ($log->clock->segments as $segment) {
            for ($from = 0; $from < $segment->count; $from += $long) {
                $count = min($long, $segment->count - $from);
                $columns = array_map(static fn (string $n): array => $log->column($n)->values($segment->first + $from, $count), $names);
                fwrite($stream, $pages->next($segment->startS + $from / $log->clock->rateHz, $columns));
            }
        }
    }
}
