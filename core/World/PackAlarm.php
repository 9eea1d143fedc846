<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** What the beeper of a craft says of its pack. */
enum PackAlarm: string
{
    case None = 'none';

    /** Below the warning level: a beep now and then. */
    case Warns = 'warns';

    /** At flight end: it does not stop. */
    case Ends = 'ends';
}
