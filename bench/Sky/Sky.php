<?php

declare(strict_types=1);

namespace Ortholex\Bench\Sky;

use Ortholex\Core\Position\Nmea\Satellite;

/**
 * Satellites over the marsh at a time: circular orbits about a turning earth, made from a seed, and how strongly each is heard. A wood
 * stands to the east; a roof takes nearly all.
 */
final readonly class Sky
{
    private const EARTH_KM = 6371.0;
    private const DAY_S = 86164.1;
    private const INCLINED_DEG = 55.5;

    /** Talker of each system: radius of its orbits in km, how many fly, and once around in s. */
    private const SYSTEMS = ['GP' => [26560.0, 30, 43082.0], 'GA' => [29600.0, 24, 50685.0]];

    /** Lower than this none is looked for, deg. */
    private const LEAST_DEG = 4.0;

    private const ROOF_DB = 22.0;

    /** The wood: from, to and how high, deg; and what it takes. */
    private const WOOD = [40.0, 150.0, 45.0, 14.0];

    public function __construct(private int $seed = 20)
    {
    }

    /**
     * In view, the strongest last heard first: by system and number.
     *
     * @param list<string> $systems talkers that are listened to
     *
     * @return list<Satellite>
     */
    public function at(float $t, bool $outdoors, array $systems = ['GP', 'GA']): array
    {
        $seen = [];
        foreach ($systems as $system) {
            [$radius, $count, $period] = self::SYSTEMS[$system];
            for ($n = 1; $n <= $count; ++$n) {
                [$elevation, $azimuth] = $this->look($system, $n, $radius, $period, $t);
                if ($elevation < self::LEAST_DEG) {
                    continue;
                }
                $strength = $this->strength($system, $n, $elevation, $azimuth, $t) - ($outdoors ? 0.0 : self::ROOF_DB);
                $seen[] = new Satellite($system, $n, round($elevation), round($azimuth), $strength < 8 ? null : round($strength));
            }
        }

        return $seen;
    }

    /**
     * What their geometry makes of errors in the plane (Kaplan and Hegarty, Understanding GPS, 7): the root of the first two of the
     * diagonal of (GᵀG)⁻¹.
     *
     * @param list<Satellite> $used
     *
     * @return float|null null for fewer than four, or all in one line
     */
    public static function hdop(array $used): ?float
    {
        if (\count($used) < 4) {
            return null;
        }
        $m = array_fill(0, 4, array_fill(0, 8, 0.0));
        foreach ($used as $s) {
            [$e, $a] = [deg2rad((float) $s->elevationDeg), deg2rad((float) $s->azimuthDeg)];
            $g = [cos($e) * sin($a), cos($e) * cos($a), sin($e), 1.0];
            for ($i = 0; $i < 4; ++$i) {
                for ($j = 0; $j < 4; ++$j) {
                    $m[$i][$j] += $g[$i] * $g[$j];
                }
            }
        }
        for ($i = 0; $i < 4; ++$i) {
            $m[$i][4 + $i] = 1.0;
        }
        for ($i = 0; $i < 4; ++$i) {
            $pivot = $m[$i][$i];
            if (abs($pivot) < 1e-9) {
                return null;
            }
            $m[$i] = array_map(static fn (float $v): float => $v / $pivot, $m[$i]);
            for ($k = 0; $k < 4; ++$k) {
                $by = $m[$k][$i];
                if ($k !== $i) {
                    $row = $m[$i];
                    $m[$k] = array_map(static fn (float $v, float $r): float => $v - $by * $r, $m[$k], $row);
                }
            }
        }

        return sqrt(max(0.0, $m[0][4] + $m[1][5]));
    }

    /** @return array{float, float} elevation and azimuth, deg */
    private function look(string $system, int $n, float $radius, float $period, float $t): array
    {
        // Six planes, their satellites a little out of step.
        $plane = $n % 6;
        $slots = self::SYSTEMS[$system][1] / 6;
        $node = $this->even($system, 0, 1) * 2 * \M_PI + $plane * \M_PI / 3 - 2 * \M_PI * fmod($t, self::DAY_S) / self::DAY_S;
        $step = intdiv($n - 1, 6) / $slots + $plane / 17 + 0.08 * $this->even($system, $n, 2);
        $along = 2 * \M_PI * $step + 2 * \M_PI * fmod($t, $period) / $period;
        $i = deg2rad(self::INCLINED_DEG);
        // From the middle of the earth, in axes that turn with it.
        $x = $radius * (cos($node) * cos($along) - sin($node) * sin($along) * cos($i));
        $y = $radius * (sin($node) * cos($along) + cos($node) * sin($along) * cos($i));
        $z = $radius * sin($along) * sin($i);
        [$lat, $lon] = [deg2rad(Marsh::LAT_DEG), deg2rad(Marsh::LON_DEG)];
        $dx = $x - self::EARTH_KM * cos($lat) * cos($lon);
        $dy = $y - self::EARTH_KM * cos($lat) * sin($lon);
        $dz = $z - self::EARTH_KM * sin($lat);
        $east = -sin($lon) * $dx + cos($lon) * $dy;
        $north = -sin($lat) * cos($lon) * $dx - sin($lat) * sin($lon) * $dy + cos($lat) * $dz;
        $up = cos($lat) * cos($lon) * $dx + cos($lat) * sin($lon) * $dy + sin($lat) * $dz;

        return [rad2deg(atan2($up, hypot($north, $east))), fmod(rad2deg(atan2($east, $north)) + 360, 360)];
    }

    private function strength(string $system, int $n, float $elevation, float $azimuth, float $t): float
    {
        [$from, $to, $high, $takes] = self::WOOD;
        $wood = $azimuth >= $from && $azimuth <= $to && $elevation < $high ? $takes : 0.0;
        $phase = 2 * \M_PI * $this->even($system, $n, 3);
        $swings = 1.5 * sin($t / 37 + $phase) + sin($t / 11 + 2 * $phase);

        return 30 + 16 * sqrt(sin(deg2rad($elevation))) - $wood + $swings;
    }

    private function even(string $system, int $n, int $what): float
    {
        return hexdec(substr(hash('xxh64', "$this->seed/$system/$n/$what"), 0, 8)) / 0xFFFFFFFF;
    }
}
