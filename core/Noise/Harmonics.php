<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Signal\Statistics;

/**
 * Whole multiples of a climbing line that stand too little over the floor to be seen bin by bin: looked for where they must be, along
 * all of the line at once, against the frequencies beside it.
 */
final class Harmonics
{
    private const HIGHEST = 4;

    /** Beside it, as shares of its frequency: from, to. */
    private const BESIDE = [0.05, 0.12];

    /** On it, as a share of its frequency. */
    private const ON = 0.012;

    /** So much over what is beside it, dB, and so surely (Student's t). */
    private const LEAST_DB = 1.5;

    private const LEAST_T = 6.0;
    private const LEAST_BINS = 10;

    /**
     * @param list<Ridge> $ridges with their families told
     *
     * @return list<Ridge> those that were not among them
     */
    public static function missing(NoiseMap $map, array $ridges): array
    {
        $first = null;
        $told = [];
        foreach ($ridges as $ridge) {
            $told[] = $ridge->harmonic;
            $first = 1 === $ridge->harmonic ? $ridge : $first;
        }
        $found = [];
        for ($n = 2; null !== $first && $n <= self::HIGHEST; ++$n) {
            $one = \in_array($n, $told, true) ? null : self::along($map, $first, $n);
            if (null !== $one) {
                $found[] = $one;
            }
        }

        return $found;
    }

    private static function along(NoiseMap $map, Ridge $first, int $n): ?Ridge
    {
        $over = [];
        $most = -\INF;
        foreach ($map->density as $bin => $density) {
            $at = NoiseMap::middle($bin);
            $hz = $n * $first->hzAt($at);
            if ($at < $first->fromPct || $at > $first->toPct || $hz * (1 + self::BESIDE[1]) > $map->stepHz * (\count($density) - 1)) {
                continue;
            }
            $on = self::mean($density, $map->stepHz, $hz * (1 - self::ON), $hz * (1 + self::ON));
            $beside = [
                self::mean($density, $map->stepHz, $hz * (1 - self::BESIDE[1]), $hz * (1 - self::BESIDE[0])),
                self::mean($density, $map->stepHz, $hz * (1 + self::BESIDE[0]), $hz * (1 + self::BESIDE[1])),
            ];
            if ($on > 0 && $beside[0] > 0 && $beside[1] > 0) {
                $over[] = 10 * log10($on) - 5 * log10($beside[0] * $beside[1]);
                $most = max($most, 10 * log10($on));
            }
        }
        $count = \count($over);
        if ($count < self::LEAST_BINS) {
            return null;
        }
        $mean = array_sum($over) / $count;
        $error = Statistics::deviation($over) / sqrt($count);
        if ($mean < self::LEAST_DB || $mean < self::LEAST_T * $error) {
            return null;
        }
        $middle = ($first->fromPct + $first->toPct) / 2;

        return new Ridge(
            RidgeKind::Climbing,
            $first->axis,
            $n * $first->hzAtZero,
            $n * $first->hzPerPct,
            $n * $first->hzAt($middle),
            $n,
            $most,
            $first->fromPct,
            $first->toPct,
        );
    }

    /** @param list<float> $density */
    private static function mean(array $density, float $stepHz, float $fromHz, float $toHz): float
    {
        $from = max(0, (int) round($fromHz / $stepHz));
        $to = min(\count($density) - 1, (int) round($toHz / $stepHz));

        return $to < $from ? 0.0 : array_sum(\array_slice($density, $from, $to - $from + 1)) / ($to - $from + 1);
    }
}
