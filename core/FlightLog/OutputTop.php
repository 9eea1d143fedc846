<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/**
 * The upper end of the outputs of a flight, %. Many boards send a little less than 100 % at most; which, the log shows by itself: a
 * limit is where outputs pile up, while the peak of what swings freely is passed by.
 */
final readonly class OutputTop
{
    public const WHOLE_PCT = 100.0;

    /** Over this it is the whole range, and under the other no limit that anyone sets. */
    private const NEARLY_WHOLE_PCT = 99.0;

    private const LOWEST_PCT = 75.0;

    /** What counts as at the highest value, and the band beneath it that as many would lie in if it were passed by, %. */
    private const AT_PCT = 0.06;

    private const BENEATH_PCT = 4.0;
    private const LEAST_SAMPLES = 20;

    /** Every so manieth is looked at first. */
    private const EVERY = 4;

    /** So many are unpacked at once. */
    private const PIECE = 65_536;

    /** @param iterable<list<float>> $outputs of each motor and stretch, % */
    public static function of(iterable $outputs): float
    {
        $lists = [];
        foreach ($outputs as $output) {
            $lists[] = $output;
        }

        return self::in(static fn (): array => $lists);
    }

    public static function ofLog(FlightLog $log): float
    {
        // Where a part of them reaches the whole range, all do.
        foreach (self::pieces($log, self::EVERY) as $some) {
            if (max($some) >= self::NEARLY_WHOLE_PCT) {
                return self::WHOLE_PCT;
            }
        }

        return self::in(static fn (): iterable => self::pieces($log, 1));
    }

    /** @param \Closure(): iterable<list<float>> $outputs however long they are: they are gone through twice */
    private static function in(\Closure $outputs): float
    {
        $top = 0.0;
        foreach ($outputs() as $output) {
            $top = max($top, [] === $output ? 0.0 : max($output));
        }
        if ($top >= self::NEARLY_WHOLE_PCT || $top < self::LOWEST_PCT) {
            return self::WHOLE_PCT;
        }
        $at = $beneath = 0;
        foreach ($outputs() as $output) {
            foreach ($output as $pct) {
                if ($pct >= $top - self::AT_PCT) {
                    ++$at;
                } elseif ($pct >= $top - self::BENEATH_PCT) {
                    ++$beneath;
                }
            }
        }

        return $at >= self::LEAST_SAMPLES && $at > $beneath ? $top : self::WHOLE_PCT;
    }

    /** @return iterable<non-empty-list<float>> each so many samples further on */
    private static function pieces(FlightLog $log, int $every): iterable
    {
        foreach ($log->places() as $place) {
            $column = $log->column("output_{$place}_pct");
            for ($from = 0; $from < $column->count; $from += self::PIECE) {
                $values = $column->each($every, $from, self::PIECE);
                if ([] !== $values) {
                    yield $values;
                }
            }
        }
    }
}
