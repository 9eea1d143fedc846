<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Ortholex\Core\Fact\Code;

/** What speaks against a choice of parts. */
enum PlanCode: string implements Code
{
    case PropsMeet = 'parts.props_meet';
    case PropTooLarge = 'parts.prop_too_large';
    case TooManyMotors = 'parts.too_many_motors';
    case StaysDown = 'parts.stays_down';
    case MotorOverVolts = 'parts.motor_over_volts';
    case EscOverVolts = 'parts.esc_over_volts';
    case EscOverAmps = 'parts.esc_over_amps';
    case NoPort = 'parts.no_port';
    case NoReceiver = 'parts.no_receiver';
    case PackOverAmps = 'parts.pack_over_amps';
    case Heavy = 'parts.heavy';
    case NoRecorder = 'parts.no_recorder';

    /** Whether it cannot be put together so; with the others it can. */
    public function refuses(): bool
    {
        return match ($this) {
            self::PackOverAmps, self::Heavy, self::NoRecorder => false,
            default => true,
        };
    }
}
