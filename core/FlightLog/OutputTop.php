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

    /** @param iterable<list<float>> $outputs of each motor and stretch, % */
    public static function of(iterable $outputs): float
    {
        $lists = [];
        $top = 0.0;
        foreach ($outputs as $output) {
            $lists[] = $output;
            $top = max($top, [] === $output ? 0.0 : max($output));
        }
        if ($top >= self::NEARLY_WHOLE_PCT || $top < self::LOWEST_PCT) {
            return self::WHOLE_PCT;
        }
        $at = $beneath = 0;
        foreach ($lists as $output) {
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

    public static function ofLog(FlightLog $log): float
    {
        $all = array_map(static fn (string $place): array => $log->runs("output_{$place}_pct"), $log->places());

        return self::of(array_merge(...$all));
    }
}
