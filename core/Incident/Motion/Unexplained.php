<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

/** Acceleration of a run that its motors do not explain, block by block, with how much of that is usual at such moments. */
final readonly class Unexplained
{
    /** How lively it is, is looked at over so many blocks to each side. */
    private const AROUND = 6;

    /** How rough it is, is looked at over so many blocks to each side, at every so manieth, between blocks so far apart. */
    private const ROUGH_AROUND = 24;

    private const ROUGH_EVERY = 4;
    private const ROUGH_APART = 4;

    /** The calmer part of it counts, as what sets in and goes again is much of it: this quantile, which a normal one has at so much. */
    private const ROUGH_QUANTILE = 0.4;

    private const ROUGH_NORMAL = 0.5244;

    /** The mean of the outputs fell by so much within so long; and how long what comes of it lasts. */
    private const DROP_PCT = 10.0;

    private const DROP_S = 0.25;
    private const WASHED_S = 1.0;

    /**
     * @param list<list<float>> $off      by axis, deg/s²
     * @param list<list<float>> $liveliness by axis: root mean square of what is expected around a block, deg/s²
     * @param list<list<float>> $roughness by axis: how much what is unexplained usually changes around a block within a few hundredths of
     *                                     a second, as a standard deviation, deg/s²; what sets in and stays makes nothing rough; 0 where
     *                                     it is not washed
     * @param list<list<float>> $thrust   by motor, over that at full output
     * @param list<bool>        $washed   whether it may sink into its own air: shortly after all motors were let go
     */
    private function __construct(
        public Blocks $blocks,
        public CraftModel $model,
        public array $off,
        public array $liveliness,
        public array $roughness,
        public array $thrust,
        public array $washed,
    ) {
    }

    public static function of(Blocks $blocks, CraftModel $model): self
    {
        [$thrust, $change] = $blocks->thrust($model->law);
        $off = $size = [[], [], []];
        for ($i = 0, $n = $blocks->count(); $i < $n; ++$i) {
            $now = $turning = [];
            foreach ($thrust as $m => $t) {
                $now[] = $t[$i];
                $turning[] = $change[$m][$i];
            }
            $expected = $model->expected($now, $turning, $blocks->rate[0][$i], $blocks->rate[1][$i], $blocks->rate[2][$i]);
            foreach ([0, 1, 2] as $axis) {
                $off[$axis][] = $blocks->accel[$axis][$i] - $expected[$axis];
                $size[$axis][] = $expected[$axis] * $expected[$axis];
            }
        }

        $washed = self::washed($blocks);
        $rough = array_map(static fn (array $one): array => self::rough($one, $washed), $off);

        return new self($blocks, $model, $off, array_map(self::around(...), $size), $rough, $thrust, $washed);
    }

    /** @return array{float, float, float} mean of what is unexplained from a step on, deg/s² */
    public function meanOver(int $step, float $seconds): array
    {
        $from = min(max(0, $this->blocks->count() - 1), intdiv($step, $this->blocks->size));
        $mean = static fn (array $off): float => round(array_sum($off) / max(1, \count($off)), 1);
        $part = array_map(fn (array $off): array => \array_slice($off, $from, $this->blocks->blocks($seconds)), $this->off);

        return [$mean($part[0]), $mean($part[1]), $mean($part[2])];
    }

    /** What a motor pushes an axis with at a block, deg/s². */
    public function push(int $axis, int $motor, int $block): float
    {
        return $this->model->effectiveness[$axis][$motor] * $this->thrust[$motor][$block];
    }

    /** @return list<bool> */
    private static function washed(Blocks $blocks): array
    {
        $outputs = [] === $blocks->run->throttle ? $blocks->run->outputs : [$blocks->run->throttle];
        $lift = [];
        for ($b = 0, $n = $blocks->count(); $b < $n; ++$b) {
            $sum = 0.0;
            foreach ($outputs as $output) {
                $sum += $output[$b * $blocks->size];
            }
            $lift[] = $sum / max(1, \count($outputs));
        }
        $back = $blocks->blocks(self::DROP_S);
        $until = -1;
        $washed = [];
        foreach ($lift as $b => $v) {
            $before = $v;
            for ($i = max(0, $b - $back); $i < $b; $i += 3) {
                $before = max($before, $lift[$i]);
            }
            if ($before - $v > self::DROP_PCT) {
                $until = $b + $blocks->blocks(self::WASHED_S);
            }
            $washed[] = $b <= $until;
        }

        return $washed;
    }

    /**
     * @param list<float> $off
     * @param list<bool>  $washed where it is asked
     *
     * @return list<float> by what usually changes around each
     */
    private static function rough(array $off, array $washed): array
    {
        $changes = [];
        for ($i = self::ROUGH_APART, $n = \count($off); $i < $n; ++$i) {
            $changes[] = abs($off[$i] - $off[$i - self::ROUGH_APART]);
        }
        $out = [];
        $now = 0.0;
        $until = 0;
        for ($i = 0; $i < $n; ++$i) {
            if (!$washed[$i]) {
                $out[] = 0.0;
                continue;
            }
            if ($i >= $until && [] !== $changes) {
                $until = $i + self::ROUGH_EVERY;
                $from = max(0, min($i - intdiv(self::ROUGH_APART, 2) - self::ROUGH_AROUND, $n - self::ROUGH_APART - 1));
                $part = \array_slice($changes, $from, 2 * self::ROUGH_AROUND + 1);
                sort($part);
                // Of a difference, whose variance is that of both.
                $now = $part[(int) (self::ROUGH_QUANTILE * \count($part))] / (\M_SQRT2 * self::ROUGH_NORMAL);
            }
            $out[] = $now;
        }

        return $out;
    }

    /**
     * @param list<float> $squares
     *
     * @return list<float> root of their mean around each
     */
    private static function around(array $squares): array
    {
        $n = \count($squares);
        $out = [];
        $sum = 0.0;
        $held = 0;
        for ($i = -self::AROUND; $i < $n; ++$i) {
            $enters = $i + self::AROUND;
            if ($enters < $n) {
                $sum += $squares[$enters];
                ++$held;
            }
            $leaves = $i - self::AROUND - 1;
            if ($leaves >= 0) {
                $sum -= $squares[$leaves];
                --$held;
            }
            if ($i >= 0) {
                $out[] = sqrt(max(0.0, $sum) / max(1, $held));
            }
        }

        return $out;
    }
}
