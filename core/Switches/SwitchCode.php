<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

use Ortholex\Core\Fact\Code;

/** What is to be said of a switch map. */
enum SwitchCode: string implements Code
{
    case NeverReached = 'switch.never_reached';
    case Contradict = 'switch.contradict';
    case ArmInOneFlick = 'switch.arm_in_one_flick';
    case NoArm = 'switch.no_arm';
    case ArmedAtRest = 'switch.armed_at_rest';
    case BeeperNeverDisarmed = 'switch.beeper_only_armed';
    case NoBeeper = 'switch.no_beeper';
    case NoLevelling = 'switch.no_levelling';
    case NeedUnmet = 'switch.need_unmet';
    case EdgeNear = 'switch.edge_near';
    case NoSuchSwitch = 'switch.no_such_switch';
    case MotorsStill = 'switch.motors_still';
    case OnStickChannel = 'switch.on_stick_channel';
}
