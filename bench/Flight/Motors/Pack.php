<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Motors;

use Ortholex\Bench\Flight\Airframe\CraftPhysics;

/** The pack in flight: it gives, is emptied, and sags. */
final class Pack
{
    /** How fast its voltage follows what is asked of it, 1/s. */
    private const FOLLOWS = 40.0;

    public float $volts;

    /** @param float $charge share used */
    public function __construct(private readonly CraftPhysics $craft, public float $charge)
    {
        $this->volts = $craft->restVoltage($charge);
    }

    public function give(float $current, float $dt): void
    {
        $this->charge += ($current * $dt) / 3600 / $this->craft->packAh;
        $under = $this->craft->restVoltage(min(1.0, $this->charge)) - $this->craft->packOhm * $current;
        $this->volts += ($under - $this->volts) * self::FOLLOWS * $dt;
    }
}
