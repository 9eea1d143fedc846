<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/** A channel that a stick moves, in the order in which they are shown. */
enum Channel: string
{
    case Roll = 'roll';
    case Pitch = 'pitch';
    case Throttle = 'throttle';
    case Yaw = 'yaw';
}
