<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Step;

/** What goes before what, most pressing first. */
enum Urgency: int
{
    /** Something was left in the middle. */
    case Unfinished = 0;

    /** The craft cannot run as it is. */
    case Stopped = 1;

    /** Nothing is known of it yet. */
    case Unknown = 2;

    /** It must not fly before this is done again. */
    case Again = 3;

    /** It differs from what it should be. */
    case Uneven = 4;

    /** Begun on screen, not yet on the craft. */
    case Staged = 5;

    /** It would fly better. */
    case Better = 6;

    /** Something newer is to be had. */
    case Newer = 7;

    /** Only when nothing else presses. */
    case Idle = 9;
}
