<?php

declare(strict_types=1);

namespace Ortholex\App\Motors\Reading;

/** What was read of the drive; the value stands in its row. */
enum DriveReadingKind: string
{
    case Rise = 'rise';
    case Feedback = 'feedback';
}
