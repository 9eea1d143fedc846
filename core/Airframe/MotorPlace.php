<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/** Where one motor sits and which way it turns. Metres from the centre of mass, x forward, y right. */
final readonly class MotorPlace
{
    /** @param int $spin +1 clockwise seen from above, −1 counter-clockwise */
    public function __construct(public string $place, public float $x, public float $y, public int $spin)
    {
    }

    public function inWords(): string
    {
        return str_replace('_', ' ', $this->place);
    }
}
