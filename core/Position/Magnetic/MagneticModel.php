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
        $ratio = self::RADIUS_M / $r;
        $level = cos($lat);
        $north = $east = $down = [];
        for ($n = 1; $n <= self::DEGREE; ++$n) {
            $power = $ratio ** ($n + 2);
            for ($m = 0; $m <= $n; ++$m) {
                [$g0, $h0, $g1, $h1] = $this->terms[$n][$m];
                $g = $g0 + $years * $g1;
                $h = $h0 + $years * $h1;
                $cos = cos($m * $lon);
                $sin = sin($m * $lon);
                $along = $power * ($g * $cos + $h * $sin);
                $north[] = -$along * $dp[$n][$m];
                $east[] = ($power * $m * ($g * $sin - $h * $cos) * $p[$n][$m]) / $level;
                $down[] = -($n + 1) * $along * $p[$n][$m];
            }
        }

        // Summed at the end: with running sums the tracing compiler of PHP 8.2 came to another field after some calls.
        return [array_sum($north), array_sum($east), array_sum($down)];
    }

    /**
     * Associated Legendre functions of sin(latitude), Schmidt semi-normalised, and their slope over the latitude.
     *
     * @return array{array<int, array<int, float>>, array<int, array<int, float>>} by degree and order
     */
    private static function legendre(float $lat): array
    {
        $s = sin($lat);
        $c = cos($lat);
        $p = [[1.0]];
        $dp = [[0.0]];
        $before = $slopesBefore = [];
        for ($n = 1; $n <= self::DEGREE; ++$n) {
            $last = $p[$n - 1];
            $slopes = $dp[$n - 1];
            [$p[$n], $dp[$n]] = self::row($n, $s, $c, $last, $slopes, $before, $slopesBefore);
            $before = $last;
            $slopesBefore = $slopes;
        }

        return [$p, $dp];
    }

    /**
     * One degree from the two before it. A method of its own, with plain sums: as one loop with the rest, the tracing compiler of PHP 8.2
     * came to other figures after a few calls (a test calls it often).
     *
     * @param array<int, float> $p   of the degree before, and its slopes
     * @param array<int, float> $dp
     * @param array<int, float> $p2  of the degree before that
     * @param array<int, float> $dp2
     *
     * @return array{array<int, float>, array<int, float>}
     */
    private static function row(int $n, float $s, float $c, array $p, array $dp, array $p2, array $dp2): array
    {
        $row = $slopes = [];
        for ($m = 0; $m < $n; ++$m) {
            $k = sqrt($n * $n - $m * $m);
            $value = (2 * $n - 1) * $s * $p[$m];
            $slope = (2 * $n - 1) * ($s * $dp[$m] + $c * $p[$m]);
            if ($m <= $n - 2) {
                $b = sqrt(($n - 1) * ($n - 1) - $m * $m);
                $value -= $b * $p2[$m];
                $slope -= $b * $dp2[$m];
            }
            $row[] = $value / $k;
            $slopes[] = $slope / $k;
        }
        $k = 1 === $n ? 1.0 : sqrt((2 * $n - 1) / (2 * $n));
        $row[] = $k * $c * $p[$n - 1];
        $slopes[] = $k * ($c * $dp[$n - 1] - $s * $p[$n - 1]);

        return [$row, $slopes];
    }
}
