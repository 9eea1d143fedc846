<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\LinearSystem;
use Ortholex\Core\Signal\Statistics;

/**
 * Whether D stayed the same throughout a flight: its trace against the slope of the rate it was made of, in windows of
 * half a second. A D that rises with the sticks or falls with throttle makes the step of no one tune.
 */
final readonly class Steadiness
{
    private const RATE_HZ = 100.0;
    private const WINDOW = 50;
    private const LEAST_R2 = 0.9;

    /** Of the filter of D, at the rate above. */
    private const TAPS = 5;

    private const LEAST_WINDOWS = 12;

    /** Share of the slope's power that a window needs against the busiest tenth, to have a say. */
    private const LEAST_SHARE = 0.1;

    /**
     * @param list<list<float>>|null $rate as flown, by run, where it is unpacked already
     *
     * @return float|null spread of D's gain over the flight, (90th − 10th percentile) / median; null when the log does not tell
     */
    public static function ofD(FlightLog $log, Axis $axis, ?array $rate = null): ?float
    {
        $rateName = $log->rateAsFlown($axis);
        if (!$log->has(Traces::term('d', $axis)) || null === $rateName) {
            return null;
        }
        $factor = max(1, (int) round($log->clock->rateHz / self::RATE_HZ));
        $pairs = [];
        $rates = null === $rate
            ? $log->decimatedRuns($rateName, $factor)
            : array_map(static fn (array $run): array => Statistics::decimated($run, $factor), $rate);
        foreach ($log->decimatedRuns(Traces::term('d', $axis), $factor) as $r => $run) {
            $pairs[] = [$run, $rates[$r]];
        }
        $path = self::path($pairs);
        $windows = [];
        foreach ($pairs as [$d, $w]) {
            for ($at = self::TAPS, $last = \count($d) - self::WINDOW - 1; $at < $last; $at += self::WINDOW) {
                $xx = $xy = $yy = 0.0;
                for ($i = $at; $i < $at + self::WINDOW; ++$i) {
                    $x = 0.0;
                    foreach ($path as $k => $c) {
                        $x += $c * ($w[$i + 1 - $k] - $w[$i - $k]);
                    }
                    $y = $d[$i];
                    $xx += $x * $x;
                    $xy += $x * $y;
                    $yy += $y * $y;
                }
                $windows[] = [$xx, $xy, $yy];
            }
        }
        if (\count($windows) < self::LEAST_WINDOWS) {
            return null;
        }
        $busy = Statistics::quantile(array_column($windows, 0), 0.9);
        $gains = [];
        foreach ($windows as [$xx, $xy, $yy]) {
            if ($xx > self::LEAST_SHARE * $busy && $yy > 0 && $xy * $xy > self::LEAST_R2 * $xx * $yy) {
                $gains[] = abs($xy / $xx);
            }
        }
        if (\count($gains) < self::LEAST_WINDOWS) {
            return null;
        }
        $middle = Statistics::median($gains);

        return $middle > 0 ? (Statistics::quantile($gains, 0.9) - Statistics::quantile($gains, 0.1)) / $middle : null;
    }

    /**
     * What the path of D makes of the slope on average over the flight: its filter, as taps of a finite impulse response by least
     * squares. Held against that, a window that holds other frequencies than the rest, as prop wash does, still has the same gain.
     *
     * @param list<array{list<float>, list<float>}> $pairs D and rate
     *
     * @return list<float>
     */
    private static function path(array $pairs): array
    {
        $n = self::TAPS;
        $a = array_fill(0, $n, array_fill(0, $n, 0.0));
        $b = array_fill(0, $n, 0.0);
        foreach ($pairs as [$d, $w]) {
            for ($i = $n, $last = \count($d) - 1; $i < $last; ++$i) {
                $x = [];
                for ($k = 0; $k < $n; ++$k) {
                    $x[] = $w[$i + 1 - $k] - $w[$i - $k];
                }
                for ($j = 0; $j < $n; ++$j) {
                    for ($k = $j; $k < $n; ++$k) {
                        $a[$j][$k] += $x[$j] * $x[$k];
                    }
                    $b[$j] += $x[$j] * $d[$i];
                }
            }
        }
        for ($j = 0; $j < $n; ++$j) {
            for ($k = 0; $k < $j; ++$k) {
                $a[$j][$k] = $a[$k][$j];
            }
            $a[$j][$j] += 1e-6 * $a[0][0] + 1e-9;
        }

        return array_values(LinearSystem::solvePositive($a, $b));
    }
}
