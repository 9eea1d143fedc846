<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

/** What a noise map is drawn against. */
enum NoiseAgainst: string
{
    case Throttle = 'throttle';
    case Rpm = 'rpm';
}
