<?php

declare(strict_types=1);

namespace Ortholex\App\Filters\Drawn;

/** The lines above the spectrum on which filters stand. */
enum FilterLane: string
{
    case RatePath = 'rate_path';
    case DPath = 'd_path';
    case Motors = 'motors';
    case Tracking = 'tracking';
    case Command = 'command';

    public function title(): string
    {
        return match ($this) {
            self::RatePath => 'Rate path',
            self::DPath => 'D path',
            self::Motors => 'Motor notches',
            self::Tracking => 'Tracking notches',
            self::Command => 'Command',
        };
    }

    public function about(): string
    {
        return match ($this) {
            self::RatePath => 'What every term sees. Lower is quieter, and delays more.',
            self::DPath => 'D multiplies noise by its frequency, so it has low-passes of its own.',
            self::Motors => 'Stand at the speed that each motor reports, and at its multiples.',
            self::Tracking => 'Find the strongest peaks by themselves: for noise that no motor speed explains.',
            self::Command => 'Smooths the steps that the receiver’s frames leave in the stick.',
        };
    }
}
