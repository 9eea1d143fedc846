<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Fact\Code;

/** What a log cannot tell of filters that it was not flown with. */
enum WhatIfDoubt: string implements Code
{
    /** The craft would also fly differently with other filters: what is worked out is how the same shaking would come through. */
    case OpenLoop = 'what_if.open_loop';

    /** The rate before the filters was not logged for an axis. */
    case NoMeasuredRate = 'what_if.no_measured_rate';

    /** The log has fewer samples than the loop: what is above half its rate was folded down into it. */
    case SlowLog = 'what_if.slow_log';

    /** The motors' speeds were not logged: their notches are left out. */
    case NoSpeeds = 'what_if.no_speeds';

    /** Too short for one spectrum. */
    case TooShort = 'what_if.too_short';
}
