<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Truth;

/** How the pilot of a truth flies. */
enum TruthMoves: string
{
    case Cruise = 'cruise';
    case Hard = 'hard';
    case Reversals = 'reversals';
    case Punches = 'punches';
    case Chops = 'chops';

    /** Highest rotation asked of roll and pitch, deg/s. */
    public function dps(): float
    {
        return match ($this) {
            self::Cruise, self::Chops => 180.0,
            self::Hard => 900.0,
            self::Reversals => 750.0,
            self::Punches => 250.0,
        };
    }

    /** How long a goal of the sticks stands, s: from, to. */
    public function holds(): float
    {
        return match ($this) {
            self::Reversals => 0.22,
            self::Hard => 0.55,
            default => 0.8,
        };
    }
}
