<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** Writes our own CSV: settings as commented YAML, header, rows; any trace to the digits its unit deserves. */
final readonly class LogWriter
{
    /**
     * @param resource     $stream
     * @param list<string> $traces names to write, in order; all when empty
     */
    public static function write(FlightLog $log, $stream, array $traces = []): void
    {
        $names = [] === $traces ? $log->names() : $traces;
        fwrite($stream, self::head($log->settings, $names));
        $format = self::rowFormat($names);
        foreach ($log->clock->segments as $segment) {
            for ($from = 0; $from < $segment->count; $from += 4096) {
                $count = min(4096, $segment->count - $from);
                $columns = [];
                foreach ($names as $name) {
                    $columns[] = $log->column($name)->values($segment->first + $from, $count);
                }
                $times = [];
                for ($i = 0; $i < $count; ++$i) {
                    $times[] = $segment->startS + ($from + $i) / $log->clock->rateHz;
                }
                fwrite($stream, self::rows($format, $times, $columns));
            }
        }
    }

    /** @param list<string> $names */
    public static function head(string $settings, array $names): string
    {
        $head = '';
        foreach ('' === trim($settings) ? [] : explode("\n", rtrim($settings, "\n")) as $line) {
            $head .= "# $line\n";
        }

        return $head.implode(',', ['time_s', ...$names])."\n";
    }

    /** @param list<string> $names */
    public static function rowFormat(array $names): string
    {
        $format = '%.6F';
        foreach ($names as $name) {
            $format .= match (Traces::unitOf($name)) {
                'rpm', 'µs' => ',%.0F',
                'deg/s', 'g', '%' => ',%.3F',
                default => ',%.2F',
            };
        }

        return $format."\n";
    }

    /**
     * @param list<float>       $times
     * @param list<list<float>> $columns
     */
    public static function rows(string $format, array $times, array $columns): string
    {
        $text = '';
        foreach ($times as $i => $time) {
            $text .= vsprintf($format, [$time, ...array_column($columns, $i)]);
        }

        return $text;
    }
}
