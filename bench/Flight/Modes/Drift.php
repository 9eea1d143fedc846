<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Modes;

/** Over the ground by tilt: towards a place, or at a speed; the wind is learnt and leant against. */
final class Drift
{
    private const G = 9.81;

    /** m/s for each m, m/s² for each m/s, and how fast the wind is learnt. */
    private const BY_PLACE = 0.5;

    private const BY_SPEED = 1.6;
    private const BY_TIME = 0.5;

    /** m/s² that it takes to stand against the wind. */
    private float $trimNorth = 0.0;

    private float $trimEast = 0.0;
    private readonly float $most;

    public function __construct(float $mostTiltDeg)
    {
        $this->most = self::G * tan(deg2rad($mostTiltDeg));
    }

    /**
     * The speed that leads to a place.
     *
     * @param array{float, float} $to   north and east, m
     * @param array{float, float} $at
     *
     * @return array{float, float} m/s
     */
    public static function towards(array $to, array $at, float $mostMs): array
    {
        $way = [$to[0] - $at[0], $to[1] - $at[1]];
        $far = hypot(...$way);
        $fast = min($mostMs, self::BY_PLACE * $far);

        return $far > 1e-6 ? [$way[0] / $far * $fast, $way[1] / $far * $fast] : [0.0, 0.0];
    }

    /**
     * The tilt that gives a speed over the ground.
     *
     * @param array{float, float} $wanted     north and east, m/s
     * @param array{float, float} $speed
     * @param float               $headingDeg that it believes
     *
     * @return array{float, float} roll and pitch, deg
     */
    public function tilt(array $wanted, array $speed, float $headingDeg, float $dt): array
    {
        $shortNorth = $wanted[0] - $speed[0];
        $shortEast = $wanted[1] - $speed[1];
        $north = self::BY_SPEED * $shortNorth + $this->trimNorth;
        $east = self::BY_SPEED * $shortEast + $this->trimEast;
        $much = sqrt($north * $north + $east * $east);
        // Leant as far as it may, it learns only what lets it lean less.
        if ($much <= $this->most || $shortNorth * $north < 0) {
            $this->trimNorth += self::BY_TIME * $shortNorth * $dt;
        }
        if ($much <= $this->most || $shortEast * $east < 0) {
            $this->trimEast += self::BY_TIME * $shortEast * $dt;
        }
        $share = $much > $this->most ? $this->most / $much : 1.0;
        $c = cos(deg2rad($headingDeg));
        $s = sin(deg2rad($headingDeg));
        $ahead = $share * ($north * $c + $east * $s);
        $right = $share * ($east * $c - $north * $s);

        return [rad2deg(atan($right / self::G)), -rad2deg(atan($ahead / self::G))];
    }
}
