<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/** Which way a motor of a custom frame is to turn, seen from above. */
enum MotorTurn: string
{
    /** Against the one before it, going round from the nose. */
    case AgainstNeighbours = 'against_neighbours';
    case Clockwise = 'clockwise';
    case CounterClockwise = 'counter_clockwise';

    /** @param int $spin +1 clockwise from above, −1 counter-clockwise */
    public static function of(int $spin): self
    {
        return $spin > 0 ? self::Clockwise : self::CounterClockwise;
    }

    /** @param int $otherwise what it is where nothing is set */
    public function spin(int $otherwise): int
    {
        return match ($this) {
            self::AgainstNeighbours => $otherwise,
            self::Clockwise => 1,
            self::CounterClockwise => -1,
        };
    }
}
