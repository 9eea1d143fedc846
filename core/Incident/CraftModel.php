<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Signal\LinearSystem;

/**
 * What each motor does to each axis, found from the flight itself: angular acceleration regressed on the outputs
 * through thrust curve and motor lag, drawn towards nothing where the flight does not tell (ridge regression).
 *
 * acceleration[axis] = Σ effectiveness[axis][motor]·thrust(output) − damping[axis]·rate + offset, thrust = lag(output/100)^power.
 */
final readonly class CraftModel
{
    private const LAGS_S = [0.008, 0.015, 0.025, 0.04, 0.06];
    private const POWERS = [1.0, 2.0];

    /** What is added to a motor's own product: a share of it, and so much a step. */
    private const RIDGE = 1e-3;

    private const RIDGE_A_STEP = 1e-4;

    /** Steps that curve and lag are chosen on. */
    private const PART = 2500;

    /**
     * @param array<int, list<float>> $effectiveness  deg/s² per full thrust, by axis and motor
     * @param list<float>             $r2      share of the acceleration that it explains, by axis
     * @param list<float>             $variance of what it does not explain, (deg/s²)²
     * @param array<int, list<float>> $coefficients by axis: motors, rate, offset
     */
    private function __construct(
        public array $effectiveness,
        public array $r2,
        public array $variance,
        public float $lagS,
        public float $power,
        public float $stepS,
        private array $coefficients,
    ) {
    }

    /**
     * @param list<list<float>> $accel    by axis, deg/s², one value per step
     * @param list<list<float>> $rate     by axis, deg/s
     * @param list<list<float>> $outputs  by motor, %
     * @param list<bool>        $use      whether a step may teach
     *
     * @return self|null null when there is too little to learn from
     */
    public static function fit(array $accel, array $rate, array $outputs, array $use, float $stepS): ?self
    {
        if (\count(array_filter($use)) < 40 * (\count($outputs) + 2)) {
            return null;
        }
        // Curve and lag are chosen on a part, and the chosen ones learned from all.
        $first = (int) array_search(true, $use, true);
        $part = static fn (array $row): array => \array_slice($row, $first, self::PART);
        /** @var list<list<float>> $a */
        $a = array_map($part, $accel);
        /** @var list<list<float>> $w */
        $w = array_map($part, $rate);
        /** @var list<list<float>> $u */
        $u = array_map($part, $outputs);
        $usable = \array_slice($use, $first, self::PART);
        $best = [self::POWERS[1], self::LAGS_S[2]];
        $most = -\INF;
        foreach (self::POWERS as $power) {
            foreach (self::LAGS_S as $lag) {
                $fit = array_sum(self::with($a, $w, self::thrust($u, $lag, $power, $stepS), $usable, $lag, $power, $stepS)->r2);
                if ($fit > $most) {
                    $most = $fit;
                    $best = [$power, $lag];
                }
            }
        }

        return self::with($accel, $rate, self::thrust($outputs, $best[1], $best[0], $stepS), $use, $best[1], $best[0], $stepS);
    }

    /**
     * Thrust of each motor, 0 to 1, as the lag and the curve make it of its output.
     *
     * @param list<list<float>> $outputs
     *
     * @return list<list<float>>
     */
    public static function thrust(array $outputs, float $lagS, float $power, float $stepS): array
    {
        $a = 1 - exp(-$stepS / $lagS);
        $thrust = [];
        foreach ($outputs as $output) {
            $speed = ($output[0] ?? 0.0) / 100;
            $row = [];
            foreach ($output as $v) {
                $speed += $a * ($v / 100 - $speed);
                $row[] = 1.0 === $power ? $speed : $speed * abs($speed);
            }
            $thrust[] = $row;
        }

        return $thrust;
    }

    /**
     * @param list<float> $thrust of each motor at a step
     * @param list<float> $rate   of each axis
     *
     * @return array{float, float, float} deg/s²
     */
    public function expected(array $thrust, array $rate): array
    {
        $out = [0.0, 0.0, 0.0];
        $n = \count($thrust);
        foreach ([0, 1, 2] as $axis) {
            $c = $this->coefficients[$axis];
            $sum = $c[$n] * $rate[$axis] + $c[$n + 1];
            foreach ($thrust as $m => $t) {
                $sum += $c[$m] * $t;
            }
            $out[$axis] = $sum;
        }

        return $out;
    }

    /**
     * @param list<list<float>> $accel
     * @param list<list<float>> $rate
     * @param list<list<float>> $thrust
     * @param list<bool>        $use
     */
    private static function with(array $accel, array $rate, array $thrust, array $use, float $lag, float $power, float $stepS): self
    {
        $n = \count($thrust);
        $count = (float) \count(array_filter($use));
        $motors = self::products($thrust, $use);
        $sums = array_map(static fn (array $t): float => self::product($t, null, $use), $thrust);
        $effectiveness = $coefficients = $r2 = $left = [];
        foreach ([0, 1, 2] as $axis) {
            [$m, $to, $yy] = self::equations($motors, $sums, $thrust, $rate[$axis], $accel[$axis], $use, $count);
            $c = LinearSystem::solve($m, $to) ?? array_fill(0, $n + 2, 0.0);
            $fitted = 0.0;
            for ($a = 0; $a < $n; ++$a) {
                $fitted += $c[$a] * $to[$a];
            }
            $fitted += $c[$n] * $to[$n] + $c[$n + 1] * $to[$n + 1];
            $mean = ($to[$n + 1] * $to[$n + 1]) / $count;
            $variance = $yy - $mean;
            $left[] = max(1.0, ($variance - max(0.0, $fitted - $mean)) / $count);
            $r2[] = $variance > 0 ? max(0.0, min(1.0, ($fitted - $mean) / $variance)) : 0.0;
            $coefficients[$axis] = $c;
            $effectiveness[$axis] = \array_slice($c, 0, $n);
        }

        return new self($effectiveness, $r2, $left, $lag, $power, $stepS, $coefficients);
    }

    /**
     * The motors' own products, the same for every axis.
     *
     * @param list<list<float>> $thrust
     * @param list<bool>        $use
     *
     * @return array<int, array<int, float>>
     */
    private static function products(array $thrust, array $use): array
    {
        $products = [];
        foreach ($thrust as $a => $ta) {
            for ($b = $a, $n = \count($thrust); $b < $n; ++$b) {
                $products[$a][$b] = $products[$b][$a] = self::product($ta, $thrust[$b], $use);
            }
        }

        return $products;
    }

    /**
     * Normal equations of one axis, motors first, then its rate and an offset.
     *
     * @param array<int, array<int, float>> $motors products of the motors
     * @param list<float>                   $sums   of each motor's thrust
     * @param list<list<float>>             $thrust
     * @param list<float>                   $w      rate of the axis
     * @param list<float>                   $y      its acceleration
     * @param list<bool>                    $use
     *
     * @return array{list<list<float>>, list<float>, float} matrix, right side, and the square of y
     */
    private static function equations(array $motors, array $sums, array $thrust, array $w, array $y, array $use, float $count): array
    {
        $n = \count($thrust);
        $m = array_fill(0, $n + 2, array_fill(0, $n + 2, 0.0));
        $to = array_fill(0, $n + 2, 0.0);
        foreach ($thrust as $a => $t) {
            for ($b = 0; $b < $n; ++$b) {
                $m[$a][$b] = $motors[$a][$b];
            }
            // Motors that always move together cannot be told apart: a little ridge keeps them small and alike.
            $m[$a][$a] += self::RIDGE * $motors[$a][$a] + self::RIDGE_A_STEP * $count;
            $m[$a][$n] = $m[$n][$a] = self::product($t, $w, $use);
            $m[$a][$n + 1] = $m[$n + 1][$a] = $sums[$a];
            $to[$a] = self::product($t, $y, $use);
        }
        $ww = self::product($w, $w, $use);
        $m[$n][$n] = $ww + 1e-6 * $ww + 1.0;
        $m[$n][$n + 1] = $m[$n + 1][$n] = self::product($w, null, $use);
        $to[$n] = self::product($w, $y, $use);
        $m[$n + 1][$n + 1] = $count;
        $to[$n + 1] = self::product($y, null, $use);

        return [array_values(array_map(array_values(...), $m)), array_values($to), self::product($y, $y, $use)];
    }

    /**
     * @param list<float>      $a
     * @param list<float>|null $b   null for ones
     * @param list<bool>       $use
     */
    private static function product(array $a, ?array $b, array $use): float
    {
        $sum = 0.0;
        if (null === $b) {
            foreach ($use as $i => $is) {
                if ($is) {
                    $sum += $a[$i];
                }
            }

            return $sum;
        }
        foreach ($use as $i => $is) {
            if ($is) {
                $sum += $a[$i] * $b[$i];
            }
        }

        return $sum;
    }
}
