<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

/** Why a board stopped its motors by itself. */
enum Stopped: string
{
    case UpsideDown = 'upside_down';
    case StillOnGround = 'still_on_ground';
    case UnaskedTurn = 'unasked_turn';
}
