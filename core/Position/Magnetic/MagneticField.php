<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Magnetic;

/** The magnetic field at a place, µT. */
final readonly class MagneticField
{
    public function __construct(public float $northUt, public float $eastUt, public float $downUt)
    {
    }

    /** From true to magnetic north, east is +; deg. */
    public function declinationDeg(): float
    {
        return rad2deg(atan2($this->eastUt, $this->northUt));
    }

    /** Down from level; deg. */
    public function inclinationDeg(): float
    {
        return rad2deg(atan2($this->downUt, hypot($this->northUt, $this->eastUt)));
    }

    public function strengthUt(): float
    {
        return sqrt($this->northUt ** 2 + $this->eastUt ** 2 + $this->downUt ** 2);
    }
}
