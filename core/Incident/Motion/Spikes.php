<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

use Ortholex\Core\Signal\Statistics;

/** Single samples that no body can follow: out and back between one sample and the next. */
final class Spikes
{
    /** A sample stands alone where it lies this many times the usual second difference from both of its neighbours. */
    private const TIMES_USUAL = 25.0;

    /** And at least this far, deg/s. */
    private const LEAST_DPS = 60.0;

    /** Of those around it, so far away, none swings by more than this share of it: a frame that rings has peaks, too, but never one. */
    private const AROUND = 6;

    private const LONELY = 0.33;

    /** What a filter made of such a sample is over within this to either side, s; and of it no more than this share stays. */
    private const BRIEF_S = 0.012;

    private const LEFT = 0.3;

    /** It is at least this far, deg/s, and this many times the usual. */
    private const BRIEF_DPS = 150.0;

    private const BRIEF_TIMES = 12.0;

    /** On its way it was steeper, by this, than the craft hardly ever is: a light one turns that far in that time by itself. */
    private const TIMES_STEEPEST = 1.7;

    private const STEEPEST = 0.995;

    /** The usual is looked up on every so manieth sample. */
    private const STRIDE = 7;

    /**
     * With such samples set between their neighbours, and so many averaged into one.
     *
     * @param list<float> $rate deg/s
     *
     * @return array{list<float>, list<int>} the rate, and which of its steps held one
     */
    public static function without(array $rate, int $factor = 1): array
    {
        $w = Statistics::decimated($rate, $factor);
        $steps = [];
        foreach (self::at($rate) as $i) {
            $step = intdiv($i, $factor);
            if (!isset($w[$step])) {
                // Among those left over at the end.
                continue;
            }
            $w[$step] += (($rate[$i - 1] + $rate[$i + 1]) / 2 - $rate[$i]) / $factor;
            $steps[] = $step;
        }

        return [array_values($w), $steps];
    }

    /**
     * Where the rate was out and back within a moment, through a filter too.
     *
     * @param list<float> $rate deg/s
     *
     * @return list<int> steps at which it was furthest out
     */
    public static function briefly(array $rate, float $stepS): array
    {
        $reach = max(2, (int) round(self::BRIEF_S / $stepS));
        $n = \count($rate);
        $off = $usual = $steep = [];
        for ($i = $reach; $i < $n - $reach; ++$i) {
            $off[$i] = $rate[$i] - ($rate[$i - $reach] + $rate[$i + $reach]) / 2;
            if (0 === $i % self::STRIDE) {
                $usual[] = abs($off[$i]);
                $steep[] = abs($rate[$i] - $rate[$i - 1]);
            }
        }
        $steepest = [] === $steep ? 0.0 : self::TIMES_STEEPEST * Statistics::quantile($steep, self::STEEPEST);
        $least = max(self::BRIEF_DPS, [] === $usual ? 0.0 : self::BRIEF_TIMES * Statistics::median($usual));
        /** @var list<int> $found */
        $found = [];
        foreach ($off as $i => $v) {
            $stays = abs($rate[$i + $reach] - $rate[$i - $reach]);
            if (abs($v) < $least || $stays > self::LEFT * abs($v) || self::steepest($rate, $i, $reach) < $steepest) {
                continue;
            }
            $before = array_pop($found);
            if (null === $before || $i - $before > 2 * $reach) {
                $found = null === $before ? [$i] : [...$found, $before, $i];
            } else {
                $found[] = abs($v) > abs($off[$before]) ? $i : $before;
            }
        }

        return $found;
    }

    /** @param list<float> $rate deg/s; the largest step from one sample to the next about one of them */
    private static function steepest(array $rate, int $i, int $reach): float
    {
        $most = 0.0;
        for ($k = $i - $reach + 1; $k <= $i + $reach; ++$k) {
            $most = max($most, abs($rate[$k] - $rate[$k - 1]));
        }

        return $most;
    }

    /**
     * @param list<float> $rate deg/s
     *
     * @return list<int> samples that stand alone
     */
    public static function at(array $rate): array
    {
        $n = \count($rate);
        $usual = [];
        for ($i = 1; $i < $n - 1; $i += self::STRIDE) {
            $usual[] = abs($rate[$i] - ($rate[$i - 1] + $rate[$i + 1]) / 2);
        }
        $least = max(self::LEAST_DPS, [] === $usual ? 0.0 : self::TIMES_USUAL * Statistics::median($usual));
        $found = [];
        for ($i = 1; $i < $n - 1; ++$i) {
            $off = $rate[$i] - $rate[$i - 1];
            $back = $rate[$i] - $rate[$i + 1];
            if (abs($off) > $least && abs($back) > $least && ($off > 0) === ($back > 0) && self::isLonely($rate, $i, $n)) {
                $found[] = $i;
            }
        }

        return $found;
    }

    /** @param list<float> $rate deg/s */
    private static function isLonely(array $rate, int $i, int $n): bool
    {
        $most = self::LONELY * abs($rate[$i] - ($rate[$i - 1] + $rate[$i + 1]) / 2);
        for ($k = 2; $k <= self::AROUND; ++$k) {
            foreach ([$i - $k, $i + $k] as $j) {
                if ($j > 0 && $j < $n - 1 && abs($rate[$j] - ($rate[$j - 1] + $rate[$j + 1]) / 2) > $most) {
                    return false;
                }
            }
        }

        return true;
    }
}
