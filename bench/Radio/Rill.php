<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

use Ortholex\Core\LinkLoss\Manner;
use Ortholex\Core\Radio\Protocol\Protocol;

/** A make of receiver: how it speaks, how often, and what it does when the radio goes silent unless told otherwise. */
enum Rill: string
{
    case C = 'rill-c';
    case S = 'rill-s';
    case P = 'rill-p';
    case W = 'rill-w';

    public function protocol(): Protocol
    {
        return match ($this) {
            self::C => Protocol::Crsf,
            self::S => Protocol::Sbus,
            self::P => Protocol::Ppm,
            self::W => Protocol::Pwm,
        };
    }

    /** Seconds from frame to frame. */
    public function interval(): float
    {
        return match ($this) {
            self::C => 1 / 150,
            self::S => 0.009,
            self::P => 0.0225,
            self::W => 0.02,
        };
    }

    public function manner(): Manner
    {
        return match ($this) {
            self::C => Manner::Stops,
            self::S => Manner::Flags,
            self::P => Manner::Repeats,
            self::W => Manner::Presets,
        };
    }
}
