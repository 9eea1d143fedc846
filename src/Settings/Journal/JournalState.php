<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Journal;

/** How far a writing has come. */
enum JournalState: string
{
    /** Begun; where its process is gone, nobody knows how far it came until the craft is linked again. */
    case Writing = 'writing';

    /** It ended before all of it was on the craft. */
    case HalfDone = 'half_done';

    case Done = 'done';

    /** Gone on with, or taken back: nothing is left to be decided. */
    case Settled = 'settled';
}
