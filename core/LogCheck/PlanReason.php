<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Fact\Code;

/** Why a card is the next to fly. */
enum PlanReason: string implements Code
{
    case NothingKnown = 'plan.nothing_known';
    case NoiseUnknown = 'plan.noise_unknown';
    case ResponseUnknown = 'plan.response_unknown';
    case BothKnown = 'plan.both_known';
}
