<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

use Ortholex\Core\Fact\Code;

/** How a motor struggles at low output, and what a swap of motors tells of it. */
enum Struggle: string implements Code
{
    case NeverSteady = 'struggle.never_steady';
    case NeverSteadyOthersDid = 'struggle.never_steady_others_did';
    case SteadyLate = 'struggle.steady_late';
    case Stalls = 'struggle.stalls';
    case WentWithMotor = 'struggle.went_with_motor';
    case StayedAtPlace = 'struggle.stayed_at_place';
    case BothNow = 'struggle.both_now';
    case Gone = 'struggle.gone';
}
