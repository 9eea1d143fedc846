<?php

declare(strict_types=1);

namespace Ortholex\Core\Compass;

/** Symmetric 3 by 3 matrices by their eigenvalues (Jacobi's rotations; Golub and Van Loan, 8.5). */
final readonly class Symmetric3
{
    private const SWEEPS = 30;

    /**
     * @param array{float, float, float}                                                                           $values
     * @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $vectors one a column
     */
    private function __construct(public array $values, private array $vectors)
    {
    }

    /** @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $a */
    public static function of(array $a): self
    {
        $v = [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]];
        for ($sweep = 0; $sweep < self::SWEEPS; ++$sweep) {
            if (abs($a[0][1]) + abs($a[0][2]) + abs($a[1][2]) < 1e-15 * (abs($a[0][0]) + abs($a[1][1]) + abs($a[2][2]))) {
                break;
            }
            foreach ([[0, 1], [0, 2], [1, 2]] as [$p, $q]) {
                if (0.0 === $a[$p][$q]) {
                    continue;
                }
                $t = ($a[$q][$q] - $a[$p][$p]) / (2 * $a[$p][$q]);
                $t = ($t < 0 ? -1 : 1) / (abs($t) + sqrt($t * $t + 1));
                $c = 1 / sqrt($t * $t + 1);
                $s = $t * $c;
                for ($k = 0; $k < 3; ++$k) {
                    [$a[$k][$p], $a[$k][$q]] = [$c * $a[$k][$p] - $s * $a[$k][$q], $s * $a[$k][$p] + $c * $a[$k][$q]];
                }
                for ($k = 0; $k < 3; ++$k) {
                    [$a[$p][$k], $a[$q][$k]] = [$c * $a[$p][$k] - $s * $a[$q][$k], $s * $a[$p][$k] + $c * $a[$q][$k]];
                    [$v[$k][$p], $v[$k][$q]] = [$c * $v[$k][$p] - $s * $v[$k][$q], $s * $v[$k][$p] + $c * $v[$k][$q]];
                }
            }
        }

        return new self([$a[0][0], $a[1][1], $a[2][2]], $v);
    }

    /**
     * The same vectors with other values.
     *
     * @param \Closure(float): float $f
     *
     * @return array{array{float, float, float}, array{float, float, float}, array{float, float, float}}
     */
    public function map(\Closure $f): array
    {
        $values = array_map($f, $this->values);
        $m = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        for ($i = 0; $i < 3; ++$i) {
            for ($j = 0; $j < 3; ++$j) {
                for ($k = 0; $k < 3; ++$k) {
                    $m[$i][$j] += $this->vectors[$i][$k] * $values[$k] * $this->vectors[$j][$k];
                }
            }
        }

        return $m;
    }
}
