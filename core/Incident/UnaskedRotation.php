<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Incident\Motion\FlightRun;
use Ortholex\Core\Signal\Statistics;

/** Signs that something went wrong: rotation outside all that was asked lately, and motors held at full without the throttle asking. */
final readonly class UnaskedRotation
{
    private const FULL_S = 0.03;

    /** Unasked rotation beyond which something is wrong, whatever the craft usually does, deg/s. */
    private const LEAST_DPS = 110.0;

    private const UNASKED_DPS = 300.0;

    /** Beyond this many times what the craft usually strays, something is wrong. */
    private const TIMES_USUAL = 5;

    private const USUAL_QUANTILE = 0.9;

    /** Straying must last this long. */
    private const LASTS_S = 0.02;

    /** From this throttle on, motors at full are no sign. */
    private const FULL_THROTTLE_PCT = 85.0;

    /** Full output held this many times as long is a sign by itself, below this throttle and with sticks at rest. */
    private const LONG_HELD = 8;

    private const LOW_THROTTLE_PCT = 75.0;
    private const REST_S = 0.25;
    private const REST_DPS = 60.0;

    /**
     * What is beyond this craft's normal: many times the spread of its unasked rotation, at least a fixed rate.
     *
     * @param list<FlightRun> $runs
     */
    public static function limit(array $runs): float
    {
        $all = [];
        foreach ($runs as $run) {
            foreach ($run->unasked as $row) {
                foreach ($row as $i => $v) {
                    if (0 === $i % 5) {
                        $all[] = abs($v);
                    }
                }
            }
        }

        return max(self::LEAST_DPS, [] === $all ? 0.0 : self::TIMES_USUAL * Statistics::quantile($all, self::USUAL_QUANTILE));
    }

    /** @return list<array{int, int}> steps from the first to the last sign, merged */
    public static function spans(FlightRun $run, float $limit): array
    {
        $spans = [];
        $gap = $run->nearestSteps(Incidents::MERGE_S);
        foreach (self::signs($run, $limit) as $i) {
            $last = [] === $spans ? null : $spans[\count($spans) - 1];
            if (null !== $last && $i - $last[1] <= $gap) {
                $spans[\count($spans) - 1] = [$last[0], $i];
            } else {
                $spans[] = [$i, $i];
            }
        }

        return $spans;
    }

    /** @return list<int> steps that show a sign */
    private static function signs(FlightRun $run, float $limit): array
    {
        $n = $run->count();
        $full = (int) ceil(self::FULL_S / $run->stepS);
        $least = (int) ceil(self::LASTS_S / $run->stepS);
        $called = Incidents::FULL * $run->topPct;
        $held = array_fill(0, \count($run->outputs), 0);
        $signs = [];
        $hits = 0;
        for ($i = 0; $i < $n; ++$i) {
            $off = $run->strayAt($i);
            $hits = $off > $limit ? $hits + 1 : 0;
            $sign = $hits >= $least || self::isWild($run, $i);
            foreach ($run->outputs as $m => $output) {
                $held[$m] = $output[$i] >= $called ? $held[$m] + 1 : 0;
                if ($held[$m] >= $full && ($run->throttle[$i] ?? 50.0) < self::FULL_THROTTLE_PCT && $off > 0.5 * $limit) {
                    $sign = true;
                }
                // Held at full for long, with the sticks at rest and the throttle low, is a call for help by itself.
                if (
                    $held[$m] >= self::LONG_HELD * $full
                    && ($run->throttle[$i] ?? 100.0) < self::LOW_THROTTLE_PCT
                    && self::atRest($run->set, $i, $run->stepS)
                ) {
                    $sign = true;
                }
            }
            if ($sign) {
                $signs[] = $i;
            }
        }

        return $signs;
    }

    /** Fast, and far from anything that was asked. */
    private static function isWild(FlightRun $run, int $i): bool
    {
        foreach ([0, 1, 2] as $axis) {
            if (abs($run->rate[$axis][$i]) > self::UNASKED_DPS && abs($run->unasked[$axis][$i]) > 0.5 * self::UNASKED_DPS) {
                return true;
            }
        }

        return false;
    }

    /** @param list<list<float>> $set */
    private static function atRest(array $set, int $i, float $stepS): bool
    {
        $back = (int) round(self::REST_S / $stepS);
        foreach ($set as $row) {
            for ($j = max(0, $i - $back); $j <= $i; $j += 4) {
                if (abs($row[$j]) > self::REST_DPS) {
                    return false;
                }
            }
        }

        return true;
    }
}
