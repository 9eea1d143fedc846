<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Saying;

use Ortholex\Core\Fact\Code;

/** What happens in the course of an incident. */
enum EventCode: string implements Code
{
    case RotationBegins = 'event.rotation_begins';
    case MotorStopsPushing = 'event.motor_stops_pushing';
    case RollsLeft = 'event.rolls_left';
    case RollsRight = 'event.rolls_right';
    case DropsNose = 'event.drops_nose';
    case LiftsNose = 'event.lifts_nose';
    case TurnsLeft = 'event.turns_left';
    case TurnsRight = 'event.turns_right';
    case CalledForFull = 'event.called_for_full';
}
