<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

/** What forbids arming; a board tells them as a mask. */
enum Bar: int
{
    case NoFrames = 1;
    case Failsafe = 2;
    case ThrottleHigh = 4;

    /** The arm action was on when power came, or when the link came back: it must be seen off once. */
    case OnSincePowerUp = 8;

    case Tilted = 16;

    /** The cable is in: on the desk nothing arms. */
    case Cable = 32;

    /** Neither a lever nor the stick is told to arm. */
    case NothingArms = 64;

    /** @return list<self> */
    public static function in(int $mask): array
    {
        return array_values(array_filter(self::cases(), static fn (self $b): bool => 0 !== ($mask & $b->value)));
    }
}
