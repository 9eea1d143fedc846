<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/** Linear equations by elimination with partial pivoting (Golub and Van Loan, Matrix Computations, 3.4). */
final readonly class LinearSystem
{
    /** A pivot smaller than this means that the equations do not determine the unknowns. */
    private const LEAST_PIVOT = 1e-12;

    /**
     * @param array<int, array<int, float>> $matrix n rows of n
     * @param array<int, float>             $right  n
     *
     * @return list<float>|null the unknowns; null when the equations do not determine them
     */
    public static function solve(array $matrix, array $right, float $leastPivot = self::LEAST_PIVOT): ?array
    {
        foreach ($right as $i => $value) {
            $matrix[$i][] = $value;
        }
        $reduced = self::reduce($matrix, $leastPivot);

        return null === $reduced ? null : array_column($reduced, \count($right));
    }

    /**
     * The same for a symmetric positive definite matrix, which needs no pivoting (Golub and Van Loan, 4.2): twice as fast, for
     * the inner loop of a fit.
     *
     * @param array<int, array<int, float>> $a
     * @param array<int, float>             $g
     *
     * @return array<int, float>
     */
    public static function solvePositive(array $a, array $g): array
    {
        $n = \count($g);
        for ($i = 0; $i < $n; ++$i) {
            for ($j = $i + 1; $j < $n; ++$j) {
                $f = $a[$j][$i] / $a[$i][$i];
                for ($k = $i; $k < $n; ++$k) {
                    $a[$j][$k] -= $f * $a[$i][$k];
                }
                $g[$j] -= $f * $g[$i];
            }
        }
        for ($i = $n - 1; $i >= 0; --$i) {
            for ($k = $i + 1; $k < $n; ++$k) {
                $g[$i] -= $a[$i][$k] * $g[$k];
            }
            $g[$i] /= $a[$i][$i];
        }

        return $g;
    }

    /**
     * @param list<list<float>> $matrix n rows of n
     *
     * @return list<list<float>>|null null when it is singular
     */
    public static function inverse(array $matrix, float $leastPivot = self::LEAST_PIVOT): ?array
    {
        $n = \count($matrix);
        foreach ($matrix as $i => $row) {
            for ($j = 0; $j < $n; ++$j) {
                $matrix[$i][] = $i === $j ? 1.0 : 0.0;
            }
        }
        $reduced = self::reduce($matrix, $leastPivot);

        return null === $reduced ? null : array_map(static fn (array $row): array => \array_slice($row, $n), $reduced);
    }

    /**
     * @param array<int, array<int, float>> $m n rows: a square matrix with its right sides behind it
     *
     * @return list<list<float>>|null the same with the square reduced to ones on its diagonal
     */
    private static function reduce(array $m, float $leastPivot): ?array
    {
        $n = \count($m);
        $width = \count($m[0] ?? []);
        for ($i = 0; $i < $n; ++$i) {
            $pivot = $i;
            for ($r = $i + 1; $r < $n; ++$r) {
                if (abs($m[$r][$i]) > abs($m[$pivot][$i])) {
                    $pivot = $r;
                }
            }
            if (abs($m[$pivot][$i]) <= $leastPivot) {
                return null;
            }
            [$m[$i], $m[$pivot]] = [$m[$pivot], $m[$i]];
            for ($r = 0; $r < $n; ++$r) {
                if ($r !== $i && 0.0 !== $m[$r][$i]) {
                    $f = $m[$r][$i] / $m[$i][$i];
                    for ($c = $i; $c < $width; ++$c) {
                        $m[$r][$c] -= $f * $m[$i][$c];
                    }
                }
            }
        }
        $out = [];
        foreach ($m as $i => $row) {
            $out[] = array_values(array_map(static fn (float $v): float => $v / $row[$i], $row));
        }

        return $out;
    }
}
