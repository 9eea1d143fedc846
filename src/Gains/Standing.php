<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

/** What a prediction is of, seen from the log that it is worked out from. */
enum Standing: string
{
    /** Gains and filters are those that the log was flown with: there is nothing to predict. */
    case AsFlown = 'as flown';

    /** The craft has others by now, and nothing else is staged. */
    case AsItStands = 'as it stands';

    case AsStaged = 'as staged';
}
