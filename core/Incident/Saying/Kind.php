<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Saying;

use Ortholex\Core\Fact\Code;

/** What an incident was, as far as the log tells. */
enum Kind: string implements Code
{
    case MotorLost = 'incident.motor_lost';
    case MotorWeak = 'incident.motor_weak';
    case Hit = 'incident.hit';
    case AskedForMore = 'incident.asked_for_more';
    case SensorGlitch = 'incident.sensor_glitch';
    case PropWash = 'incident.prop_wash';
    case PilotsOwn = 'incident.pilots_own';
    case CannotTell = 'incident.cannot_tell';

    public function isOfMotor(): bool
    {
        return self::MotorLost === $this || self::MotorWeak === $this;
    }

    /** Whether something is to be looked at before the next flight. */
    public function isGrave(): bool
    {
        return $this->isOfMotor() || self::Hit === $this || self::SensorGlitch === $this || self::CannotTell === $this;
    }

    /** As programs read it. */
    public function word(): string
    {
        return substr($this->value, \strlen('incident.'));
    }
}
