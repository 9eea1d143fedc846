<?php

declare(strict_types=1);

namespace Ortholex\Core\DeskNoise;

use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Signal\LinearSystem;
use Ortholex\Core\Signal\Statistics;

/**
 * Where the shake of the shafts swells as their speed passes: a frame that nothing else drives shows its resonance only there.
 *
 * The power about the first and the second order is followed over the steps (order tracking); that grows smoothly with the speed, and what
 * stands over it is the frame's.
 */
final readonly class Swell
{
    private const ORDERS = [1, 2];

    /** Motors at one output differ by so much in speed. */
    private const BAND = 0.06;

    private const LEAST_DB = 5.5;

    /** Over the scatter of the others, by their median absolute deviation. */
    private const LEAST_SIGMA = 2.2;

    /** Points so near in frequency are one place, as a share. */
    private const NEAR = 0.06;

    private const ROUNDS = 4;

    /** As a gyro's own low-pass bends it, dB by the square of the natural logarithm. */
    private const MOST_BENT = -4.0;

    private const LEAST_BESIDE = 6;
    private const LEAST_POINTS = 15;

    /** Below, motors that differ by a per cent or two beat within a burst. */
    private const LOWEST_HZ = 60.0;

    private function __construct(public float $hz, public float $db)
    {
    }

    /** The strongest of one axis; null for none. */
    public static function of(NoiseMap $map, float $shaftHzPerPct): ?self
    {
        $points = [];
        foreach (self::ORDERS as $order) {
            $points = [...$points, ...self::over(self::along($map, $order * $shaftHzPerPct))];
        }
        if (\count($points) < self::LEAST_POINTS) {
            return null;
        }
        /** @var list<float> $smooth */
        $smooth = [];
        usort($points, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        // The middle one of neighbours: shafts that beat with each other make single ones stand out.
        for ($i = 0, $last = \count($points) - 1; $i <= $last; ++$i) {
            $smooth[] = Statistics::median(array_column(\array_slice($points, max(0, min($i - 1, $last - 2)), 3), 1));
        }
        $sigma = 1.4826 * Statistics::median(array_map(abs(...), $smooth));
        $most = max([0.0, ...$smooth]);
        $place = (int) array_search($most, $smooth, true);
        $at = $points[$place][0] ?? 0.0;
        // At the ends of what was passed nobody can tell a swell from how the whole grows.
        $atEnd = min($place, \count($points) - 1 - $place) < self::LEAST_BESIDE;
        if ($atEnd || $most < max(self::LEAST_DB, self::LEAST_SIGMA * $sigma)) {
            return null;
        }
        // Its middle is where what it has over the others has its centre of weight.
        $sum = $weight = 0.0;
        foreach ($points as [$hz, $db]) {
            if (abs($hz / $at - 1) < 2 * self::NEAR) {
                $w = max(0.0, 10 ** ($db / 10) - 1) ** 2;
                $sum += $w * $hz;
                $weight += $w;
            }
        }

        return new self($weight > 0 ? $sum / $weight : $at, $most);
    }

    /** @return list<array{float, float}> Hz, and dB, of one order */
    private static function along(NoiseMap $map, float $hzPerPct): array
    {
        $points = [];
        foreach ($map->density as $bin => $density) {
            $hz = $hzPerPct * NoiseMap::middle($bin);
            $from = (int) floor($hz * (1 - self::BAND) / $map->stepHz) - 1;
            $to = (int) ceil($hz * (1 + self::BAND) / $map->stepHz) + 1;
            if ($hz < self::LOWEST_HZ || $to >= \count($density)) {
                continue;
            }
            $points[] = [$hz, 10 * log10(max(1e-12, array_sum(\array_slice($density, $from, $to - $from + 1))))];
        }

        return $points;
    }

    /**
     * What is left over a smooth growth: a parabola in the logarithm of the frequency, without those that stand high.
     *
     * @param list<array{float, float}> $points
     *
     * @return list<array{float, float}>
     */
    private static function over(array $points): array
    {
        $keep = $points;
        $fit = [0.0, 0.0, 0.0];
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $fit = self::fit($keep, null);
            if ($fit[2] < self::MOST_BENT || $fit[2] > 0.0) {
                $fit = self::fit($keep, max(self::MOST_BENT, min(0.0, $fit[2])));
            }
            $left = array_map(static fn (array $p): float => $p[1] - self::at($fit, $p[0]), $points);
            $limit = 2 * max(0.5, 1.4826 * Statistics::median(array_map(abs(...), $left)));
            $keep = array_values(array_filter($points, static fn (array $p): bool => $p[1] - self::at($fit, $p[0]) <= $limit));
        }

        return array_map(static fn (array $p): array => [$p[0], $p[1] - self::at($fit, $p[0])], $points);
    }

    /**
     * By least squares.
     *
     * @param list<array{float, float}> $points
     * @param float|null                $bent   the term of second order, where it is given
     *
     * @return array{float, float, float}
     */
    private static function fit(array $points, ?float $bent): array
    {
        $terms = null === $bent ? 3 : 2;
        $matrix = array_fill(0, $terms, array_fill(0, $terms, 0.0));
        $right = array_fill(0, $terms, 0.0);
        foreach ($points as [$hz, $db]) {
            $x = log($hz / 100);
            for ($i = 0; $i < $terms; ++$i) {
                $right[$i] += $x ** $i * ($db - ($bent ?? 0.0) * $x * $x);
                for ($j = 0; $j < $terms; ++$j) {
                    $matrix[$i][$j] += $x ** ($i + $j);
                }
            }
        }
        $fit = LinearSystem::solve($matrix, $right) ?? [0.0, 0.0, 0.0];

        return [$fit[0], $fit[1], $bent ?? $fit[2]];
    }

    /** @param array{float, float, float} $fit */
    private static function at(array $fit, float $hz): float
    {
        return $fit[0] + $fit[1] * log($hz / 100) + $fit[2] * log($hz / 100) ** 2;
    }
}
