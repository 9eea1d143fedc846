<?php

declare(strict_types=1);

namespace Ortholex\Core\Compass;

use Ortholex\Core\Signal\LinearSystem;
use Ortholex\Core\Signal\Statistics;

/**
 * What a compass reads, made a sphere again: the hard-iron offset that is taken off, and the soft-iron matrix that then sets it right.
 *
 * An ellipsoid through the samples by linear least squares, then by least squares of what matters: that all readings are equally long
 * (Gauss and Newton). Readings far off the rest are left out once.
 */
final readonly class CompassFit
{
    /** Fewer readings determine no ellipsoid that can be trusted. */
    public const LEAST = 40;

    /** Less of the sphere than this leaves too much to guess, share. */
    public const LEAST_COVERED = 0.6;

    /** A residual over this is no calibration, share of the field. */
    public const MOST_RESIDUAL = 0.08;

    /** An ellipsoid longer than this many times its width is something stuck to the compass. */
    private const MOST_CROOKED = 3.0;

    private const ROUNDS = 12;
    private const OFF = 5.0;

    /** Readings farther from the middle than so many times the usual are none of an ellipsoid that could be used. */
    private const FAR = 3.0;

    /**
     * @param array{float, float, float}                                                                           $offset  µT
     * @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $matrix  symmetric, determinant 1
     * @param float                                                                                       $fieldUt length of what comes out
     * @param float                                                                                       $residual RMS, share of the field
     * @param int                                                                                         $leftOut readings far off the rest
     */
    private function __construct(
        public array $offset,
        public array $matrix,
        public float $fieldUt,
        public float $residual,
        public SphereCoverage $coverage,
        public int $leftOut,
    ) {
    }

    /**
     * @param list<array{float, float, float}> $samples µT, as the compass reads them
     *
     * @throws CompassError when they do not calibrate it
     */
    public static function of(array $samples): self
    {
        if (\count($samples) < self::LEAST) {
            throw CompassError::of(CompassFlaw::TooFew, count: \count($samples), least: self::LEAST);
        }
        $near = self::near($samples);
        [$about, $scale] = self::frame($near);
        $unit = array_map(
            static fn (array $s): array => [($s[0] - $about[0]) / $scale, ($s[1] - $about[1]) / $scale, ($s[2] - $about[2]) / $scale],
            $near,
        );
        $p = self::refined($unit, self::ellipsoid($unit, $near));
        $off = array_map(static fn (array $s): float => abs(self::length($s, $p) - 1), $unit);
        $far = self::OFF * max(0.002, Statistics::median($off) / 0.6745);
        $kept = array_values(array_filter($unit, static fn (array $s): bool => abs(self::length($s, $p) - 1) <= $far));
        if (\count($kept) < \count($unit) && \count($kept) >= self::LEAST) {
            $p = self::refined($kept, $p);
        } else {
            $kept = $unit;
        }
        $coverage = SphereCoverage::of(array_map(static fn (array $s): array => self::applied($s, $p), $kept));
        if ($coverage->share() < self::LEAST_COVERED) {
            throw self::notCovered($near, $coverage->share());
        }
        $values = Symmetric3::of(self::matrix($p))->values;
        if (min($values) <= 0 || max($values) / min($values) > self::MOST_CROOKED) {
            throw CompassError::of(CompassFlaw::TooCrooked, ratio: min($values) <= 0 ? 99.0 : max($values) / min($values));
        }
        $squares = array_map(static fn (array $s): float => (self::length($s, $p) - 1) ** 2, $kept);
        $residual = sqrt(array_sum($squares) / \count($squares));
        if ($residual > self::MOST_RESIDUAL) {
            throw CompassError::of(CompassFlaw::TooRough, residual_pct: 100 * $residual, most_pct: 100 * self::MOST_RESIDUAL);
        }
        $even = ($values[0] * $values[1] * $values[2]) ** (1 / 3);

        return new self(
            [$about[0] + $scale * $p[6], $about[1] + $scale * $p[7], $about[2] + $scale * $p[8]],
            array_map(static fn (array $row): array => array_map(static fn (float $v): float => $v / $even, $row), self::matrix($p)),
            $scale / $even,
            $residual,
            $coverage,
            \count($samples) - \count($kept),
        );
    }

    /**
     * A reading set right.
     *
     * @param array{float, float, float} $reading µT
     *
     * @return array{float, float, float} µT
     */
    public function apply(array $reading): array
    {
        return Calibration::of($this->offset, $this->matrix)->apply($reading);
    }

    /**
     * Without what lies so far off that an ellipsoid through it would be one through nothing else.
     *
     * @param list<array{float, float, float}> $samples
     *
     * @return list<array{float, float, float}>
     */
    private static function near(array $samples): array
    {
        [$about] = self::frame($samples);
        $far = array_map(static fn (array $s): float => hypot(hypot($s[0] - $about[0], $s[1] - $about[1]), $s[2] - $about[2]), $samples);
        $most = self::FAR * max(1e-9, Statistics::median($far));
        $near = array_values(array_filter($samples, static fn (int $i): bool => $far[$i] <= $most, \ARRAY_FILTER_USE_KEY));

        return \count($near) < self::LEAST ? $samples : $near;
    }

    /**
     * @param list<array{float, float, float}> $samples
     *
     * @return array{array{float, float, float}, float} a middle, and a length
     */
    private static function frame(array $samples): array
    {
        $about = [];
        $scale = 0.0;
        for ($i = 0; $i < 3; ++$i) {
            $of = array_column($samples, $i);
            $about[] = Statistics::median($of);
            $scale += Statistics::deviation($of) ** 2;
        }

        return [[$about[0], $about[1], $about[2]], max(1e-9, sqrt($scale))];
    }

    /**
     * Ax² + By² + Cz² + 2Dxy + 2Exz + 2Fyz + 2Gx + 2Hy + 2Iz = 1 by linear least squares.
     *
     * @param list<array{float, float, float}> $unit
     * @param list<array{float, float, float}> $samples as they came, for the error
     *
     * @return list<float> six of the matrix that makes it a unit sphere, and the three of its middle
     */
    private static function ellipsoid(array $unit, array $samples): array
    {
        $a = array_fill(0, 9, array_fill(0, 9, 0.0));
        $g = array_fill(0, 9, 0.0);
        foreach ($unit as [$x, $y, $z]) {
            $row = [$x * $x, $y * $y, $z * $z, 2 * $x * $y, 2 * $x * $z, 2 * $y * $z, 2 * $x, 2 * $y, 2 * $z];
            for ($i = 0; $i < 9; ++$i) {
                $g[$i] += $row[$i];
                for ($j = 0; $j < 9; ++$j) {
                    $a[$i][$j] += $row[$i] * $row[$j];
                }
            }
        }
        $v = LinearSystem::solve($a, $g) ?? throw self::notCovered($samples);
        $m = [[$v[0], $v[3], $v[4]], [$v[3], $v[1], $v[5]], [$v[4], $v[5], $v[2]]];
        $middle = LinearSystem::solve($m, [-$v[6], -$v[7], -$v[8]]) ?? throw self::notCovered($samples);
        $long = 1.0 - ($v[6] * $middle[0] + $v[7] * $middle[1] + $v[8] * $middle[2]);
        $eigen = Symmetric3::of([
            [$m[0][0] / $long, $m[0][1] / $long, $m[0][2] / $long],
            [$m[1][0] / $long, $m[1][1] / $long, $m[1][2] / $long],
            [$m[2][0] / $long, $m[2][1] / $long, $m[2][2] / $long],
        ]);
        if (min($eigen->values) <= 0) {
            throw self::notCovered($samples);
        }
        $root = $eigen->map(static fn (float $e): float => sqrt($e));

        return [$root[0][0], $root[1][1], $root[2][2], $root[0][1], $root[0][2], $root[1][2], ...$middle];
    }

    /**
     * A sphere fitted to a corner of it may lie anywhere: as long as too little was shown, that is told as it was seen while it was turned.
     *
     * @param list<array{float, float, float}> $samples
     * @param float|null                       $fitted  share that the fit saw covered; null where none was found
     */
    private static function notCovered(array $samples, ?float $fitted = null): CompassError
    {
        $rough = SphereCoverage::roughly($samples)->share();
        $share = $rough < self::LEAST_COVERED ? $rough : $fitted;

        return null === $share
            ? CompassError::of(CompassFlaw::NoEllipsoid)
            : CompassError::of(CompassFlaw::NotCovered, covered_pct: 100 * $share, least_pct: 100 * self::LEAST_COVERED);
    }

    /**
     * @param list<array{float, float, float}> $unit
     * @param list<float>                      $p
     *
     * @return list<float>
     */
    private static function refined(array $unit, array $p): array
    {
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $a = array_fill(0, 9, array_fill(0, 9, 0.0));
            $g = array_fill(0, 9, 0.0);
            foreach ($unit as $s) {
                [$u, $v, $w] = self::applied($s, $p);
                $size = max(1e-9, sqrt($u * $u + $v * $v + $w * $w));
                $u /= $size;
                $v /= $size;
                $w /= $size;
                [$x, $y, $z] = [$s[0] - $p[6], $s[1] - $p[7], $s[2] - $p[8]];
                $row = [
                    $u * $x, $v * $y, $w * $z, $u * $y + $v * $x, $u * $z + $w * $x, $v * $z + $w * $y,
                    -($u * $p[0] + $v * $p[3] + $w * $p[4]),
                    -($u * $p[3] + $v * $p[1] + $w * $p[5]),
                    -($u * $p[4] + $v * $p[5] + $w * $p[2]),
                ];
                for ($i = 0; $i < 9; ++$i) {
                    $g[$i] += $row[$i] * (1 - $size);
                    for ($j = 0; $j < 9; ++$j) {
                        $a[$i][$j] += $row[$i] * $row[$j];
                    }
                }
            }
            $step = LinearSystem::solve($a, $g);
            if (null === $step) {
                break;
            }
            $p = array_values(array_map(static fn (float $at, float $by): float => $at + $by, $p, $step));
            if (max(0.0, ...array_map(abs(...), $step)) < 1e-10) {
                break;
            }
        }

        return $p;
    }

    /**
     * @param array{float, float, float} $s
     * @param list<float>                $p
     *
     * @return array{float, float, float}
     */
    private static function applied(array $s, array $p): array
    {
        [$x, $y, $z] = [$s[0] - $p[6], $s[1] - $p[7], $s[2] - $p[8]];

        return [$p[0] * $x + $p[3] * $y + $p[4] * $z, $p[3] * $x + $p[1] * $y + $p[5] * $z, $p[4] * $x + $p[5] * $y + $p[2] * $z];
    }

    /**
     * @param array{float, float, float} $s
     * @param list<float>                $p
     */
    private static function length(array $s, array $p): float
    {
        [$x, $y, $z] = self::applied($s, $p);

        return sqrt($x * $x + $y * $y + $z * $z);
    }

    /**
     * @param list<float> $p
     *
     * @return array{array{float, float, float}, array{float, float, float}, array{float, float, float}}
     */
    private static function matrix(array $p): array
    {
        return [[$p[0], $p[3], $p[4]], [$p[3], $p[1], $p[5]], [$p[4], $p[5], $p[2]]];
    }
}
