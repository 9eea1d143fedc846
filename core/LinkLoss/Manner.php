<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

/** What a receiver does when its transmitter goes silent. */
enum Manner: string
{
    case Stops = 'stops';
    case Flags = 'flags';
    case Repeats = 'repeats';
    case Presets = 'presets';
}
