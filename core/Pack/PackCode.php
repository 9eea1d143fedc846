<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

use Ortholex\Core\Fact\Code;

/** What there is to say of a pack and its sensors. */
enum PackCode: string implements Code
{
    case NoTrace = 'pack.no_trace';
    case TooShort = 'pack.too_short';
    case Steady = 'pack.steady';
    case TooFarOff = 'pack.too_far_off';
    case NoVolts = 'pack.no_volts';
    case TooNear = 'pack.too_near';
    case NoHover = 'pack.no_hover';

    /** The voltage stands still while the current does not. */
    case Stuck = 'pack.stuck';

    /** It is another source than the pack's. */
    case WrongSource = 'pack.wrong_source';

    /** Resistance rose by half since the pack was new. */
    case Ages = 'pack.ages';
}
