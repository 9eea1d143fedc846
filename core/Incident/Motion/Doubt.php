<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

use Ortholex\Core\Signal\Statistics;

/**
 * How far the model of a craft is usually off: the more, the more is going on. Learned from the log itself, so that a model that
 * explains little accuses nobody.
 */
final readonly class Doubt
{
    private const BINS = 8;

    /** A model is never better than this share of what it expects, nor than this, deg/s². */
    private const LEAST_SHARE = 0.08;

    /** Beyond what the log has shown, of what is expected. */
    private const BEYOND_SHARE = 0.2;

    private const LEAST_DPS2 = 60.0;

    /** Correlation of what is left is followed over so many blocks. */
    private const LAGS = 20;

    /** What lies further out than this many times the usual counts as this. */
    private const CLIPPED = 3.0;

    /** Where too little of it was seen, what is left in a craft's own air is taken for so many times as much. */
    private const TIMES_WASHED = 3.0;

    /** What is left over how rough it is: where too little was seen, and never less or more. */
    private const TIMES_ROUGH = 2.0;

    private const LEAST_TIMES = 1.0;
    private const MOST_TIMES = 3.0;

    /** Within this many scales lie 95 % of what is spread by Student's t with four degrees of freedom. */
    private const OUTER_T = 2.776;

    /** Blocks of it that say how much it is. */
    private const LEAST_WASHED = 150;

    /**
     * @param list<list<array{float, float}>> $spread by axis, then by axis in the craft's own air: liveliness and what is usually left
     *                                                there, rising
     * @param list<float>                     $times  by axis: what is left in its own air, over how rough it is there
     * @param array{float, float}             $worth  of a block, in calm air and in its own: those that follow one another say much the
     *                                                same, a model that is off for long, wash for short
     */
    private function __construct(private array $spread, private array $times, private array $worth)
    {
    }

    /** @param list<Unexplained> $all */
    public static function of(array $all): self
    {
        $spread = [];
        foreach ([0, 1, 2, 3, 4, 5] as $k) {
            $axis = $k % 3;
            $calm = $spread[$axis] ?? [];
            $lively = $left = [];
            foreach ($all as $one) {
                foreach ($one->off[$axis] as $i => $off) {
                    if (!$one->blocks->teaches[$i] || ($k > 2) !== $one->washed[$i]) {
                        continue;
                    }
                    $lively[] = $one->liveliness[$axis][$i];
                    $left[] = abs($off);
                }
            }
            asort($lively);
            $spread[] = $k < 3 || \count($lively) >= self::LEAST_WASHED ? self::binned($lively, $left, $k > 2) : self::times($calm);
        }
        $times = array_map(static fn (int $axis): float => self::overRough($all, $axis), [0, 1, 2]);
        $doubt = new self($spread, $times, [1.0, 1.0]);
        $calm = $doubt->worthOf($all, false) ?? 1.0;

        return new self($spread, $times, [$calm, $doubt->worthOf($all, true) ?? $calm]);
    }

    /** How much a block says of its own, 0 to 1. */
    public function worth(bool $washed): float
    {
        return $this->worth[$washed ? 1 : 0];
    }

    /** What is usually left of an axis where so much is going on, deg/s². */
    public function usual(int $axis, float $liveliness, bool $washed): float
    {
        $points = $this->spread[$washed ? $axis + 3 : $axis];
        $last = $points[0];
        $usual = null;
        foreach ($points as $point) {
            if ($liveliness <= $point[0]) {
                $share = $point[0] > $last[0] ? ($liveliness - $last[0]) / ($point[0] - $last[0]) : 1.0;
                $usual = $last[1] + max(0.0, $share) * ($point[1] - $last[1]);
                break;
            }
            $last = $point;
        }
        // Livelier than it ever was: what the model gets wrong grows with it.
        $usual ??= sqrt($last[1] ** 2 + (self::BEYOND_SHARE * ($liveliness - $last[0])) ** 2);

        return max(self::LEAST_DPS2, self::LEAST_SHARE * $liveliness, $usual);
    }

    /** The same of a block, where how rough it is just there tells how much its own air does, deg/s². */
    public function at(Unexplained $one, int $axis, int $block): float
    {
        $calm = $this->usual($axis, $one->liveliness[$axis][$block], false);

        return $one->washed[$block] ? hypot($calm, $this->times[$axis] * $one->roughness[$axis][$block]) : $calm;
    }

    /** @return list<list<float>> what is usually left, by axis and block, deg/s² */
    public function over(Unexplained $one): array
    {
        $usual = [];
        foreach ($one->liveliness as $axis => $lively) {
            $row = [];
            foreach (array_keys($lively) as $b) {
                $row[] = $this->at($one, $axis, $b);
            }
            $usual[] = $row;
        }

        return $usual;
    }

    /** @param list<Unexplained> $all */
    private static function overRough(array $all, int $axis): float
    {
        $times = [];
        foreach ($all as $one) {
            foreach ($one->off[$axis] as $b => $off) {
                if ($one->washed[$b] && $one->blocks->teaches[$b]) {
                    $times[] = abs($off) / max(self::LEAST_DPS2, $one->roughness[$axis][$b]);
                }
            }
        }
        if (\count($times) < self::LEAST_WASHED) {
            return self::TIMES_ROUGH;
        }

        return max(self::LEAST_TIMES, min(self::MOST_TIMES, Statistics::quantile($times, 0.95) / self::OUTER_T));
    }

    /**
     * @param list<array{float, float}> $points
     *
     * @return list<array{float, float}>
     */
    private static function times(array $points): array
    {
        return array_map(static fn (array $p): array => [$p[0], self::TIMES_WASHED * $p[1]], $points);
    }

    /**
     * @param array<int, float> $lively how much is going on, by block, rising
     * @param list<float>       $left   by block
     * @param bool              $bursts whether it comes in bursts, so that what is usual says little of them
     *
     * @return list<array{float, float}>
     */
    private static function binned(array $lively, array $left, bool $bursts): array
    {
        $n = \count($lively);
        $blocks = array_keys($lively);
        if (0 === $n) {
            return [[0.0, self::LEAST_DPS2]];
        }
        $each = max(1, intdiv($n, self::BINS));
        $points = [];
        $most = 0.0;
        for ($from = 0; $from + $each <= $n; $from += $each) {
            $part = array_map(static fn (int $block): float => $left[$block], \array_slice($blocks, $from, $each));
            $usual = $bursts
                ? Statistics::quantile($part, 0.95) / self::OUTER_T
                : sqrt(1.4826 * Statistics::median($part) * Statistics::quantile($part, 0.9) / 1.645);
            $most = max($most, $usual);
            $points[] = [$lively[$blocks[$from + intdiv($each, 2)]], $most];
        }

        return $points;
    }

    /**
     * @param list<Unexplained> $all
     *
     * @return float|null null where too little of such air was seen
     */
    private function worthOf(array $all, bool $washed): ?float
    {
        $products = array_fill(0, self::LAGS + 1, 0.0);
        $pairs = 0;
        foreach ($all as $one) {
            foreach ([0, 1] as $axis) {
                $z = [];
                foreach ($one->off[$axis] as $i => $off) {
                    if (!$one->blocks->teaches[$i] || $one->washed[$i] !== $washed) {
                        continue;
                    }
                    $times = $off / $this->at($one, $axis, $i);
                    $z[$i] = max(-self::CLIPPED, min(self::CLIPPED, $times));
                }
                $pairs += \count($z);
                foreach ($z as $i => $v) {
                    for ($lag = 0; $lag <= self::LAGS; ++$lag) {
                        $products[$lag] += $v * ($z[$i + $lag] ?? 0.0);
                    }
                }
            }
        }
        if ($pairs < self::LEAST_WASHED) {
            return null;
        }
        $sum = 1.0;
        for ($lag = 1; $lag <= self::LAGS && $products[0] > 0 && $products[$lag] > 0; ++$lag) {
            $sum += 2 * $products[$lag] / $products[0];
        }

        return 1 / $sum;
    }
}
