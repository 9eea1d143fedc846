<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

use Ortholex\Core\Fact\Code;

/** Why a geometry cannot fly, or poses tell nothing. */
enum AirframeFlaw: string implements Code
{
    case TooFewMotors = 'airframe.too_few_motors';
    case PlaceTwice = 'airframe.place_twice';
    case TwoInOneSpot = 'airframe.two_in_one_spot';
    case CannotCommand = 'airframe.cannot_command';
    case CommandsNotIndependent = 'airframe.commands_not_independent';
    case NotStillInPose = 'airframe.not_still_in_pose';
    case PosesAlike = 'airframe.poses_alike';
    case PosesContradictLift = 'airframe.poses_contradict_lift';
    case Moves = 'airframe.moves';
    case NotLevel = 'airframe.not_level';
}
