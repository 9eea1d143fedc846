<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Fact\Code;

/** What is wrong with the signs of an axis. */
enum SignCode: string implements Code
{
    case CountedOtherWay = 'sign.counted_other_way';
    case RotationTurned = 'sign.rotation_turned';
    case CommandTurned = 'sign.command_turned';
    case OneIsTurned = 'sign.one_is_turned';
}
