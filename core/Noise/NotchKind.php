<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

/** Which notch a track belongs to; the rotor speed itself, where no notch is known to have followed it. */
enum NotchKind: string
{
    case Motor = 'motor';
    case Tracking = 'tracking';
    case Rotor = 'rotor';
}
