<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay\Source;

/** What is to be thought of a source. */
enum SourceVerdict: string
{
    case Follows = 'follows';

    /** It stands still while what it should show changes. */
    case Stuck = 'stuck';

    /** It shows something else. */
    case Wrong = 'wrong';

    /** What it should show has not changed enough to tell. */
    case CannotTell = 'cannot_tell';
}
