<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

/**
 * How fast a craft flies level when it leans, and what that takes: tan(tilt) = (v / v45)², thrust grows with 1 / cos(tilt), and the
 * current of a prop with the 3/2 power of its thrust (Leishman, Principles of Helicopter Aerodynamics, 2).
 */
final readonly class AirLaw
{
    /**
     * @param float $tilted45Ms level speed at which a tilt of 45° holds it
     * @param float $hoverA     current of the pack while it hovers
     */
    private function __construct(public float $tilted45Ms, public float $hoverA)
    {
    }

    public static function of(float $tilted45Ms, float $hoverA): self
    {
        if ($tilted45Ms <= 0 || $hoverA <= 0) {
            throw new \InvalidArgumentException("$tilted45Ms m/s, $hoverA A");
        }

        return new self($tilted45Ms, $hoverA);
    }

    /** m/s through the air. */
    public function airspeed(float $tiltDeg): float
    {
        return $this->tilted45Ms * sqrt(tan(deg2rad($tiltDeg)));
    }

    /** deg, to fly level at a speed through the air. */
    public function tilt(float $airspeedMs): float
    {
        return rad2deg(atan(($airspeedMs / $this->tilted45Ms) ** 2));
    }

    /** A, at a speed through the air. */
    public function current(float $airspeedMs): float
    {
        return $this->hoverA / cos(deg2rad($this->tilt($airspeedMs))) ** 1.5;
    }
}
