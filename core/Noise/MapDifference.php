<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

/** One noise map less another, in dB: negative where the first is quieter. Only bins that both have, on the coarser grid. */
final readonly class MapDifference
{
    /**
     * @param array<int, list<float>> $db     by bin
     */
    private function __construct(public float $stepHz, public array $db)
    {
    }

    /**
     * @param array<int, list<float>> $a density of the first by bin, dB, from zero on
     * @param array<int, list<float>> $b of the second
     * @param float                   $levels full level of the first over that of the second, where they differ
     */
    public static function of(array $a, float $stepA, array $b, float $stepB, float $levels = 1.0): self
    {
        $step = max($stepA, $stepB);
        if ($step <= 0) {
            return new self(1.0, []);
        }
        $a = self::gridded($a, $stepA, $step);
        $b = self::gridded($b, $stepB, $step);
        $out = [];
        foreach ($a as $bin => $here) {
            $other = (int) floor(($bin + 0.5) * $levels);
            if (!isset($b[$other])) {
                continue;
            }
            $row = [];
            for ($k = 0, $n = min(\count($here), \count($b[$other])); $k < $n; ++$k) {
                $row[] = 10 * log10(self::around($a, $bin, $k) / self::around($b, $other, $k));
            }
            $out[$bin] = $row;
        }

        return new self($step, $out);
    }

    /**
     * Mean difference of each band over the bins that both have.
     *
     * @param list<array{float, float}> $bandsHz
     *
     * @return list<array{from_hz: float, to_hz: float, db: float}> of bands that the maps reach
     */
    public function bands(array $bandsHz): array
    {
        $out = [];
        foreach ($bandsHz as [$from, $to]) {
            $values = [];
            foreach ($this->db as $row) {
                for (
                    $k = (int) ceil($from / $this->stepHz), $last = min(\count($row) - 1, (int) floor($to / $this->stepHz));
                    $k <= $last;
                    ++$k
                ) {
                    $values[] = $row[$k];
                }
            }
            if (\count($values) >= 4) {
                $out[] = ['from_hz' => $from, 'to_hz' => $to, 'db' => array_sum($values) / \count($values)];
            }
        }

        return $out;
    }

    /**
     * Power on a coarser grid: a finer map is averaged, not picked from.
     *
     * @param array<int, list<float>> $rows dB by bin
     *
     * @return array<int, list<float>> power by bin
     */
    private static function gridded(array $rows, float $step, float $coarse): array
    {
        $out = [];
        foreach ($rows as $bin => $row) {
            $last = \count($row) - 1;
            for ($k = 0; $k * $coarse <= $last * $step + 1e-9; ++$k) {
                $from = max(0, (int) ceil((($k - 0.5) * $coarse) / $step));
                $to = max($from, min($last, (int) floor((($k + 0.5) * $coarse) / $step)));
                $sum = 0.0;
                for ($i = $from; $i <= $to; ++$i) {
                    $sum += 10 ** ($row[min($i, $last)] / 10);
                }
                $out[$bin][] = $sum / ($to - $from + 1);
            }
        }

        return $out;
    }

    /**
     * Mean of a cell and its neighbours: single cells of a map scatter by more than two mounts differ.
     *
     * @param array<int, list<float>> $power
     */
    private static function around(array $power, int $bin, int $k): float
    {
        $sum = 0.0;
        $count = 0;
        for ($b = $bin - 1; $b <= $bin + 1; ++$b) {
            for ($j = max(0, $k - 1); $j <= $k + 1; ++$j) {
                if (isset($power[$b][$j])) {
                    $sum += $power[$b][$j];
                    ++$count;
                }
            }
        }

        return max(1e-12, $sum / max(1, $count));
    }
}
