<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Truth;

/** What goes wrong in a truth. */
enum TruthFault: string
{
    case None = 'none';
    case MotorStops = 'motor_stops';
    case MotorHalf = 'motor_half';
    case PropHalf = 'prop_half';
    case Collision = 'collision';
    case Glitch = 'glitch';

    public function isOfMotor(): bool
    {
        return self::MotorStops === $this || self::MotorHalf === $this || self::PropHalf === $this;
    }
}
