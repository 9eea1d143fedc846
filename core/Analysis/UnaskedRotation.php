<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\Signal\Statistics;

/** Signs that something went wrong: rotation outside all that was asked lately, and motors held at full without the throttle asking. */
final readonly class UnaskedRotation
{
    private const ASKED_BACK_S = 0.12;
    private const ASKED_AHEAD_S = 0.01;
    private const FULL_S = 0.03;

    /** Unasked rotation beyond which something is wrong, whatever the craft usually does, deg/s. */
    private const LEAST_DPS = 110.0;

    private const UNASKED_DPS = 300.0;

    /**
     * How far each axis' rotation lies outside what was asked lately; deg/s, with its sign.
     *
     * @param list<list<float>> $rate
     * @param list<list<float>> $set
     *
     * @return list<list<float>>
     */
    public static function of(array $rate, array $set, float $stepS): array
    {
        $back = (int) round(self::ASKED_BACK_S / $stepS);
        $ahead = (int) round(self::ASKED_AHEAD_S / $stepS);
        $out = [];
        foreach ($rate as $axis => $w) {
            $s = $set[$axis];
            $n = \count($w);
            $row = [];
            for ($i = 0; $i < $n; ++$i) {
                $low = \INF;
                $high = -\INF;
                for ($j = max(0, $i - $back), $end = min($n - 1, $i + $ahead); $j <= $end; $j += 5) {
                    $v = $s[$j];
                    if ($v < $low) {
                        $low = $v;
                    }
                    if ($v > $high) {
                        $high = $v;
                    }
                }
                // Overshoot in proportion to the move belongs to the tune, not to an incident.
                $slack = 0.55 * max(abs($low), abs($high), $high - $low);
                $row[] = $w[$i] > $high + $slack ? $w[$i] - $high - $slack : ($w[$i] < $low - $slack ? $w[$i] - $low + $slack : 0.0);
            }
            $out[] = $row;
        }

        return $out;
    }

    /**
     * What is beyond this craft's normal: many times the spread of its unasked rotation, at least a fixed rate.
     *
     * @param list<array{unasked: list<list<float>>}> $runs
     */
    public static function limit(array $runs): float
    {
        $all = [];
        foreach ($runs as $run) {
            foreach ($run['unasked'] as $row) {
                foreach ($row as $i => $v) {
                    if (0 === $i % 5) {
                        $all[] = abs($v);
                    }
                }
            }
        }

        return max(self::LEAST_DPS, [] === $all ? 0.0 : 5 * Statistics::quantile($all, 0.9));
    }

    /**
     * @param array{rate: list<list<float>>, set: list<list<float>>, outputs: list<list<float>>, unasked: list<list<float>>, throttle: list<float>} $run
     *
     * @return list<array{int, int}> steps from the first to the last sign, merged
     */
    public static function spans(array $run, float $limit, float $stepS): array
    {
        $n = \count($run['unasked'][0]);
        $full = (int) ceil(self::FULL_S / $stepS);
        $held = array_fill(0, \count($run['outputs']), 0);
        $signs = [];
        $hits = 0;
        for ($i = 0; $i < $n; ++$i) {
            $off = max(abs($run['unasked'][0][$i]), abs($run['unasked'][1][$i]), abs($run['unasked'][2][$i]));
            $hits = $off > $limit ? $hits + 1 : 0;
            $sign = $hits >= (int) ceil(0.02 / $stepS);
            foreach ([0, 1, 2] as $axis) {
                $sign = $sign || (abs($run['rate'][$axis][$i]) > self::UNASKED_DPS && abs($run['unasked'][$axis][$i]) > 0.5 * self::UNASKED_DPS);
            }
            foreach ($run['outputs'] as $m => $output) {
                $held[$m] = $output[$i] >= Incidents::FULL_PCT ? $held[$m] + 1 : 0;
                if ($held[$m] >= $full && ($run['throttle'][$i] ?? 50.0) < 85 && $off > 0.5 * $limit) {
                    $sign = true;
                }
                // Held at full for long, with the sticks at rest and the throttle low, is a call for help by itself.
                if ($held[$m] >= 8 * $full && ($run['throttle'][$i] ?? 100.0) < 75 && self::atRest($run['set'], $i, $stepS)) {
                    $sign = true;
                }
            }
            if ($sign) {
                $signs[] = $i;
            }
        }
        $spans = [];
        $gap = (int) round(Incidents::MERGE_S / $stepS);
        foreach ($signs as $i) {
            $last = [] === $spans ? null : $spans[\count($spans) - 1];
            if (null !== $last && $i - $last[1] <= $gap) {
                $spans[\count($spans) - 1] = [$last[0], $i];
            } else {
                $spans[] = [$i, $i];
            }
        }

        return $spans;
    }

    /** @param list<list<float>> $set */
    private static function atRest(array $set, int $i, float $stepS): bool
    {
        $back = (int) round(0.25 / $stepS);
        foreach ($set as $row) {
            for ($j = max(0, $i - $back); $j <= $i; $j += 4) {
                if (abs($row[$j]) > 60) {
                    return false;
                }
            }
        }

        return true;
    }
}
