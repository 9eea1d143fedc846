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

    /** The number it has where nothing else is known: in the order in which they are shown. */
    public function usual(): int
    {
        return (int) array_search($this, self::cases(), true) + 1;
    }
}
