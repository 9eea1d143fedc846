<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Fact\Code;

/** Why a window has no part in a step response. */
enum Exclusion: string implements Code
{
    case TooShort = 'exclusion.too_short';
    case TooStill = 'exclusion.too_still';
    case Astray = 'exclusion.astray';
    case ByHand = 'exclusion.by_hand';
}
