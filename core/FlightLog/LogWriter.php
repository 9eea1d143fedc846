<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** Writes our own CSV: settings as commented YAML, header, rows; any trace to the digits its unit deserves. */
final readonly class LogWriter
{
    /** Figures after the point by unit, as many as its sensor tells; two where nothing is said. */
    private const FORMATS = ['rpm' => ',%.0F', 'µs' => ',%.0F', 'deg/s' => ',%.3F', 'g' => ',%.3F', '%' => ',%.3F'];

    /**
     * @param resource     $stream
     * @param list<string> $traces names to write, in order; all when empty
     * @param string|null  $head   instead of its own
     */
    public static function write(FlightLog $log, $stream, array $traces = [], ?string $head = null): void
    {
        $names = [] === $traces ? $log->names() : $traces;
        fwrite($stream, self::head($head ?? $log->settings, $names));
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

        return $head.implode(',', [Traces::TIME, ...$names])."\n";
    }

    /** @param list<string> $names */
    public static function rowFormat(array $names): string
    {
        $format = '%.6F';
        foreach ($names as $name) {
            $format .= self::FORMATS[Traces::unitOf($name) ?? ''] ?? ',%.2F';
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

        // What rounds to nothing has no sign: written, read and written again it is the same.
        return (string) preg_replace('~,-(0(?:\.0+)?)(?=[,\n])~', ',$1', $text);
    }
}
