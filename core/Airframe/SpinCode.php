<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

use Ortholex\Core\Fact\Code;

/** What the answers of a spin check say. */
enum SpinCode: string implements Code
{
    case NoMotorThere = 'spin.no_motor_there';
    case PadsShareMotor = 'spin.pads_share_motor';
    case DirectionsToShow = 'spin.directions_to_show';
    case StillToShow = 'spin.still_to_show';
    case OutputsMoved = 'spin.outputs_moved';
    case MotorsTurnWrong = 'spin.motors_turn_wrong';
    case OutputsMovedAndMotorsTurnWrong = 'spin.outputs_moved_and_motors_turn_wrong';
    case AllRight = 'spin.all_right';
}
