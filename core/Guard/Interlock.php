<?php

declare(strict_types=1);

namespace Ortholex\Core\Guard;

use Ortholex\Core\Fact\Code;

/** What must hold before motors may turn, as it is said while it does not. */
enum Interlock: string implements Code
{
    case LinkTheCraft = 'interlock.link_the_craft';
    case ConnectThePack = 'interlock.connect_the_pack';
    case TakePropsOff = 'interlock.take_props_off';
    case PropsBeforeSpinning = 'interlock.props_before_spinning';
    case PropsBeforeFlashing = 'interlock.props_before_flashing';
}
