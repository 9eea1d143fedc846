<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Segment;

/** Writes a log as a recording: pages of half a second, each trace in 16-bit steps from its own offset. */
final readonly class RecordWriter
{
    private const PAGE_S = 0.5;
    private const MOST_SAMPLES = 16_384;

    /** The head stands at the beginning and again after so many pages: none of its copies is the only one. */
    private const HEAD_EVERY = 16;

    private const STEPS = 65_535;
    private const MOST_DIGITS = 6;
    private const ROUNDS = 4;

    /** float32 keeps so much of a figure. */
    private const KEPT = 6.0e-8;

    /** @param resource $stream */
    public static function write(FlightLog $log, $stream): void
    {
        $names = $log->names();
        $head = (string) json_encode(
            ['rate_hz' => $log->clock->rateHz, 'traces' => $names, 'settings' => $log->settings],
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION,
        );
        $long = max(1, min(self::MOST_SAMPLES, (int) round(self::PAGE_S * $log->clock->rateHz)));
        $number = 0;
        foreach ($log->clock->segments as $segment) {
            for ($from = 0; $from < $segment->count; $from += $long) {
                if (0 === $number % self::HEAD_EVERY) {
                    fwrite($stream, RecordPage::encode(RecordPage::HEAD, $number, 0.0, 0, \count($names), $head));
                }
                $count = min($long, $segment->count - $from);
                $start = $segment->startS + $from / $log->clock->rateHz;
                $payload = self::payload($log, $names, $segment, $from, $count);
                fwrite($stream, RecordPage::encode(RecordPage::DATA, $number, $start, $count, \count($names), $payload));
                ++$number;
            }
        }
    }

    /** @param list<string> $names */
    private static function payload(FlightLog $log, array $names, Segment $segment, int $from, int $count): string
    {
        $payload = '';
        foreach ($names as $name) {
            $payload .= self::column($log->column($name), $segment->first + $from, $count);
        }

        return $payload;
    }

    /** Offset and step, float64; then a count of steps for each sample, 16 bits, little-endian. */
    private static function column(Column $column, int $first, int $count): string
    {
        $values = $column->values($first, $count);
        // Until what would be read back is written the same: then a recording that was read and written again has the same bytes.
        for ($round = 0, $before = ''; $round < self::ROUNDS; ++$round) {
            [$bytes, $values] = self::steps($values);
            if ($bytes === $before) {
                break;
            }
            $before = $bytes;
        }

        return $before;
    }

    /**
     * @param list<float> $values
     *
     * @return array{string, list<float>} as bytes, and as they would be read back
     */
    private static function steps(array $values): array
    {
        $low = min([\INF, ...$values]);
        $high = max([-\INF, ...$values]);
        [$step, $digits] = self::step($values, $low, $high);
        $offset = round(floor($low / $step + 1e-6) * $step, $digits);
        $steps = $back = [];
        foreach ($values as $v) {
            $steps[] = $n = max(0, min(self::STEPS, (int) round(($v - $offset) / $step)));
            $back[] = round($offset + $n * $step, $digits);
        }

        return [pack('ee', $offset, $step).pack('v*', ...$steps), $back];
    }

    /**
     * The decimal step that holds every value exactly, where 16 bits suffice for it; else the least 1, 2 or 5 of a decimal that does.
     *
     * @param list<float> $values
     *
     * @return array{float, int} and its digits
     */
    private static function step(array $values, float $low, float $high): array
    {
        for ($digits = 0; $digits <= self::MOST_DIGITS && ($high - $low) * 10.0 ** $digits < self::STEPS - 1; ++$digits) {
            if (self::holds($values, $digits)) {
                return [10.0 ** -$digits, $digits];
            }
        }
        for ($digits = self::MOST_DIGITS; $digits > -self::MOST_DIGITS; --$digits) {
            foreach ([1.0, 2.0, 5.0] as $times) {
                if ($high - $low < (self::STEPS - 1) * $times * 10.0 ** -$digits) {
                    return [$times * 10.0 ** -$digits, $digits];
                }
            }
        }

        return [max(1.0, ($high - $low) / (self::STEPS - 1)), 0];
    }

    /** @param list<float> $values */
    private static function holds(array $values, int $digits): bool
    {
        foreach ($values as $v) {
            if (abs($v - round($v, $digits)) > self::KEPT * abs($v) + 1e-12) {
                return false;
            }
        }

        return true;
    }
}
