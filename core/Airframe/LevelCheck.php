<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/**
 * What is left of roll and pitch when the craft is said to lie level: the board's small crookedness, beyond its mounting.
 *
 * The accelerometer at rest reads specific force, −gravity. Through the mounting it should show straight down; what
 * it shows instead is the level to take off.
 */
final readonly class LevelCheck
{
    /** More than this is no crookedness but a craft that is not level, or a wrong mounting; deg. */
    private const MOST_DEG = 8.0;

    private function __construct(public float $rollDeg, public float $pitchDeg)
    {
    }

    /**
     * @param array{float, float, float} $force    specific force in the board's axes, g
     * @param Rotation                   $mounting as set
     *
     * @throws AirframeError when the craft moves, or lies too far from level to be calibrated
     */
    public static function of(array $force, Rotation $mounting): self
    {
        $size = sqrt($force[0] ** 2 + $force[1] ** 2 + $force[2] ** 2);
        if ($size < 0.9 || $size > 1.1) {
            throw AirframeError::of(AirframeFlaw::Moves, g: $size);
        }
        $down = $mounting->apply([-$force[0] / $size, -$force[1] / $size, -$force[2] / $size]);
        $roll = rad2deg(atan2($down[1], $down[2]));
        $pitch = rad2deg(asin(max(-1.0, min(1.0, -$down[0]))));
        if (abs($roll) > self::MOST_DEG || abs($pitch) > self::MOST_DEG) {
            throw AirframeError::of(AirframeFlaw::NotLevel, roll: $roll, pitch: $pitch);
        }

        return new self(round($roll, 2), round($pitch, 2));
    }
}
