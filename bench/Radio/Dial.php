<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

/** What of a channel can be dialled in the transmitter. */
enum Dial: string
{
    case Low = 'low';
    case High = 'high';
    case Trim = 'trim';
    case Reversed = 'reversed';

    /** A figure as the transmitter takes it: within what it can be dialled to. */
    public function within(float $value): float|bool
    {
        return match ($this) {
            self::Low, self::High => max(20.0, min(150.0, $value)),
            self::Trim => max(-150.0, min(150.0, $value)),
            self::Reversed => $value > 0.5,
        };
    }
}
