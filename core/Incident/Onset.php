<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Signal\Statistics;

/** Back from the first clear sign to where the rotation nobody asked for began to grow. */
final readonly class Onset
{
    /** Further back than this it is the move before. */
    private const REACH_S = 0.35;

    /** How late the change point of a loss can lie. */
    private const LATE_S = 0.06;

    /** Rotation below this share of the limit is quiet, where no model tells more. */
    private const QUIET_SHARE = 0.1;

    /** What nothing explains is smoothed over this. */
    private const SMOOTH_S = 0.02;

    /** What is usual is looked at from this long before the sign on. */
    private const USUAL_FROM_S = 1.4;

    private const USUAL_QUANTILE = 0.9;

    /** Surprise counts from this many times the usual, and from this share of its peak. */
    private const TIMES_USUAL = 1.6;

    private const SHARE_OF_PEAK = 0.3;

    /** A dip shorter than this ends no growth. */
    private const DIP_S = 0.03;

    /**
     * @param float             $limit  unasked rotation beyond this craft's normal, deg/s
     * @param list<list<float>> $thrust by motor, as the model has it
     *
     * @return int step
     */
    public static function of(Suspicion $s, float $limit, ?CraftModel $model, array $thrust): int
    {
        $run = $s->run;
        $reach = max(1, $s->from - $run->nearestSteps(self::REACH_S));
        $onset = null === $model ? self::quietBefore($s, $reach, $limit) : self::growth($s, $reach, $model, $thrust);

        // The change point of a loss can lie some steps late: the rotation itself is the earliest sign.
        return [] !== $s->likelihood || null !== $s->stopped ? max($onset, $s->from - $run->nearestSteps(self::LATE_S)) : $onset;
    }

    private static function quietBefore(Suspicion $s, int $reach, float $limit): int
    {
        for ($i = $s->from; $i > $reach; --$i) {
            if ($s->run->strayAt($i) < self::QUIET_SHARE * $limit) {
                return $i;
            }
        }

        return $reach;
    }

    /**
     * The earliest stretch of acceleration that nothing explains, and that stays until the clear sign.
     *
     * @param list<list<float>> $thrust
     */
    private static function growth(Suspicion $s, int $reach, CraftModel $model, array $thrust): int
    {
        $run = $s->run;
        $w = max(2, $run->nearestSteps(self::SMOOTH_S));
        $size = [];
        $begin = max(0, $s->from - $run->nearestSteps(self::USUAL_FROM_S));
        for ($i = $begin; $i <= $s->from; ++$i) {
            $size[$i] = self::surprise($run, $model, $thrust, $i);
        }
        $usual = array_values(array_filter($size, static fn (int $i): bool => $i < $reach, \ARRAY_FILTER_USE_KEY));
        $base = [] === $usual ? 0.0 : Statistics::quantile($usual, self::USUAL_QUANTILE);
        $smooth = static fn (int $i): float => array_sum(\array_slice($size, max(0, $i - $w - $begin), $w)) / $w;
        $peak = 0.0;
        for ($i = $reach; $i <= $s->from; ++$i) {
            $peak = max($peak, $smooth($i));
        }
        $threshold = max(self::TIMES_USUAL * $base, self::SHARE_OF_PEAK * $peak);
        $onset = $s->from;
        $quiet = 0;
        for ($i = $s->from; $i > $reach; --$i) {
            if ($smooth($i) >= $threshold) {
                $onset = $i - $w;
                $quiet = 0;
            } elseif (++$quiet > self::DIP_S / $run->stepS) {
                break;
            }
        }

        return max($reach, $onset);
    }

    /** @param list<list<float>> $thrust */
    private static function surprise(FlightRun $run, CraftModel $model, array $thrust, int $i): float
    {
        $expected = $model->expected(array_column($thrust, $i), $run->rateAt($i));
        $sum = 0.0;
        foreach ([0, 1] as $axis) {
            $sum += ($run->accel[$axis][$i] - $expected[$axis]) ** 2;
        }

        return sqrt($sum);
    }
}
