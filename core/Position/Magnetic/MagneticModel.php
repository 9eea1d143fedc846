<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Magnetic;

/**
 * The field of the earth by the World Magnetic Model 2025: spherical harmonics to degree and order 12 with their change over the years
 * (Chulliat et al., The US/UK World Magnetic Model; Langel 1987 for the recursions). Schmidt semi-normalised.
 */
final readonly class MagneticModel
{
    public const NAME = 'WMM-2025';
    public const EPOCH = 2025.0;

    /** Last day that it is meant for; the first is that of its epoch. */
    public const VALID_UNTIL = '2029-12-31';

    private const DEGREE = 12;

    /** Geomagnetic reference radius, and the axes of the WGS 84 ellipsoid; m. */
    private const RADIUS_M = 6_371_200.0;

    private const MAJOR_M = 6_378_137.0;
    private const MINOR_M = 6_356_752.3142;

    /** @param array<int, array<int, array{float, float, float, float}>> $terms g, h, nT, and their change a year, by degree and order */
    private function __construct(private array $terms)
    {
    }

    public static function load(): self
    {
        $terms = [];
        foreach (file(__DIR__.'/wmm-2025.txt', \FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            if ('#' !== $line[0]) {
                [$n, $m, $g, $h, $dg, $dh] = array_map(floatval(...), explode(' ', $line));
                $terms[(int) $n][(int) $m] = [$g, $h, $dg, $dh];
            }
        }

        return new self($terms);
    }

    /** Whether the model is meant for a date. */
    public static function covers(\DateTimeImmutable $date): bool
    {
        return $date->format('Y-m-d') >= '2025-01-01' && $date->format('Y-m-d') <= self::VALID_UNTIL;
    }

    /**
     * @param float $latDeg −90 to 90, geodetic
     * @param float $lonDeg −180 to 180
     * @param float $heightM over the ellipsoid
     *
     * @throws OutsideModel for a date that it is not meant for, or no place
     */
    public function at(float $latDeg, float $lonDeg, \DateTimeImmutable $date, float $heightM = 0.0): MagneticField
    {
        if (!self::covers($date)) {
            throw OutsideModel::date($date);
        }
        if (!is_finite($latDeg) || abs($latDeg) > 90 || !is_finite($lonDeg) || abs($lonDeg) > 180) {
            throw OutsideModel::place($latDeg, $lonDeg);
        }
        $years = (float) $date->format('Y') + ((float) $date->format('z') + 0.5) / (365 + (int) $date->format('L')) - self::EPOCH;
        // At a pole east and north mean nothing: a hair beside it.
        $lat = deg2rad(max(-89.9999, min(89.9999, $latDeg)));
        [$r, $geocentric] = self::geocentric($lat, $heightM);
        [$north, $east, $down] = $this->spherical($r, $geocentric, deg2rad($lonDeg), $years);
        $turn = $geocentric - $lat;

        return new MagneticField(
            ($north * cos($turn) - $down * sin($turn)) / 1000,
            $east / 1000,
            ($north * sin($turn) + $down * cos($turn)) / 1000,
        );
    }

    /** @return array{float, float} distance from the middle of the earth, m, and geocentric latitude, rad */
    private static function geocentric(float $lat, float $heightM): array
    {
        [$a2, $b2] = [self::MAJOR_M ** 2, self::MINOR_M ** 2];
        $n = $a2 / sqrt($a2 * cos($lat) ** 2 + $b2 * sin($lat) ** 2);
        [$across, $up] = [($n + $heightM) * cos($lat), ($n * $b2 / $a2 + $heightM) * sin($lat)];

        return [hypot($across, $up), atan2($up, $across)];
    }

    /** @return array{float, float, float} north, east and down, nT, in the geocentric frame */
    private function spherical(float $r, float $lat, float $lon, float $years): array
    {
        [$p, $dp] = self::legendre($lat);
        $north = $east = $down = 0.0;
        $ratio = self::RADIUS_M / $r;
        $level = cos($lat);
        $power = $ratio * $ratio;
        for ($n = 1; $n <= self::DEGREE; ++$n) {
            $power *= $ratio;
            for ($m = 0; $m <= $n; ++$m) {
                // Plain assignments: the tracing compiler of PHP 8.2 got a list that assigns to its own operands wrong here.
                $term = $this->terms[$n][$m];
                $g = $term[0] + $years * $term[2];
                $h = $term[1] + $years * $term[3];
                $cos = cos($m * $lon);
                $sin = sin($m * $lon);
                $along = $g * $cos + $h * $sin;
                $north -= $power * $along * $dp[$n][$m];
                $east += ($power * $m * ($g * $sin - $h * $cos) * $p[$n][$m]) / $level;
                $down -= ($n + 1) * $power * $along * $p[$n][$m];
            }
        }

        return [$north, $east, $down];
    }

    /**
     * Associated Legendre functions of sin(latitude), Schmidt semi-normalised, and their slope over the latitude.
     *
     * @return array{array<int, array<int, float>>, array<int, array<int, float>>} by degree and order
     */
    private static function legendre(float $lat): array
    {
        [$s, $c] = [sin($lat), cos($lat)];
        $p = [[1.0]];
        $dp = [[0.0]];
        for ($n = 1; $n <= self::DEGREE; ++$n) {
            for ($m = 0; $m <= $n; ++$m) {
                if ($m === $n) {
                    $k = 1 === $n ? 1.0 : sqrt((2 * $n - 1) / (2 * $n));
                    $p[$n][$m] = $k * $c * $p[$n - 1][$m - 1];
                    $dp[$n][$m] = $k * ($c * $dp[$n - 1][$m - 1] - $s * $p[$n - 1][$m - 1]);
                    continue;
                }
                [$a, $b] = [2 * $n - 1, $n - 2 >= $m ? sqrt(($n - 1) ** 2 - $m * $m) : 0.0];
                $k = sqrt($n * $n - $m * $m);
                $p[$n][$m] = ($a * $s * $p[$n - 1][$m] - $b * ($p[$n - 2][$m] ?? 0.0)) / $k;
                $dp[$n][$m] = ($a * ($s * $dp[$n - 1][$m] + $c * $p[$n - 1][$m]) - $b * ($dp[$n - 2][$m] ?? 0.0)) / $k;
            }
        }

        return [$p, $dp];
    }
}
