<?php

declare(strict_types=1);

namespace Ortholex\Core\DeskNoise;

use Ortholex\Core\Fact\Code;

/** What a measurement on the desk tells, and what it cannot. */
enum DeskSaying: string implements Code
{
    /** Stands at its frequency whatever the speed: the frame, or something loose on it. */
    case Resonance = 'desk.resonance';

    /** The shafts shake it more where they pass this frequency. */
    case Swell = 'desk.swell';

    /** Follows the speed: shafts and bells out of balance. */
    case Shaft = 'desk.shaft';

    /** The set rotor magnets do not fit the speed that the gyro feels. */
    case SpeedDiffers = 'desk.speed_differs';

    /** Neither stood out. */
    case Quiet = 'desk.quiet';

    /** The loudest speed. */
    case Loudest = 'desk.loudest';

    /** Not reached by the first order of the shafts, so nothing is known there. */
    case NotReached = 'desk.not_reached';

    /** Props, air and the feet it stood on. */
    case NotInFlight = 'desk.not_in_flight';

    /** Fewer steps than tell standing from climbing. */
    case TooFew = 'desk.too_few';
}
