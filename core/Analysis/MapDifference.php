<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** One noise map less another, in dB: negative where the first is quieter. Only bins that both have, on the coarser grid. */
final readonly class MapDifference
{
    /**
     * @param float                   $stepHz
     * @param array<int, list<float>> $db     by bin
     */
    private function __construct(public float $stepHz, public array $db)
    {
    }

    /**
     * @param array<int, list<float>> $a density of the first by bin, dB, from zero on
     * @param array<int, list<float>> $b of the second
     */
    public static function of(array $a, float $stepA, array $b, float $stepB): self
    {
        $step = max($stepA, $stepB);
        $out = [];
        foreach ($a as $bin => $here) {
            $there = $b[$bin] ?? null;
            if (null === $there || $step <= 0) {
                continue;
            }
            $row = [];
            $top = min((\count($here) - 1) * $stepA, (\count($there) - 1) * $stepB);
            for ($k = 0; $k * $step <= $top + 1e-9; ++$k) {
                $row[] = self::at($here, $stepA, $k, $step) - self::at($there, $stepB, $k, $step);
            }
            $out[$bin] = $row;
        }

        return new self($step, $out);
    }

    /**
     * Mean of the power around a frequency, dB: a finer map is averaged, not picked from.
     *
     * @param list<float> $row
     */
    private static function at(array $row, float $step, int $k, float $coarse): float
    {
        $from = max(0, (int) ceil(($k - 0.5) * $coarse / $step));
        $to = min(\count($row) - 1, (int) floor(($k + 0.5) * $coarse / $step));
        if ($to <= $from) {
            return $row[min(\count($row) - 1, (int) round($k * $coarse / $step))];
        }
        $sum = 0.0;
        for ($i = $from; $i <= $to; ++$i) {
            $sum += 10 ** ($row[$i] / 10);
        }

        return 10 * log10($sum / ($to - $from + 1));
    }
}
