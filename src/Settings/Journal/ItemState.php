<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Journal;

/** How far one setting of a writing has come. */
enum ItemState: string
{
    case Waiting = 'waiting';

    /** The craft has acknowledged it, and will have forgotten it when its power goes. */
    case Taken = 'taken';

    /** The craft has said that it keeps it. */
    case Kept = 'kept';
}
