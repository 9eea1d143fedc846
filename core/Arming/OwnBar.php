<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

use Ortholex\Core\Fact\Code;

/** What no board knows, and a craft should not fly without. */
enum OwnBar: string implements Code
{
    /** Never proved; figure: what. */
    case NotProved = 'own_bar.not_proved';

    /** Proved, and what it rested on was changed since; figures: what, settings. */
    case Lapsed = 'own_bar.lapsed';

    /** Proved with what waits in the tray; figure: what. */
    case Waits = 'own_bar.waits';

    /** A part was replaced since; figures: what, part. */
    case Replaced = 'own_bar.replaced';
    case NoSnapshot = 'own_bar.no_snapshot';

    /** Figure: changes. */
    case Staged = 'own_bar.staged';

    /** The rehearsal found that nobody would notice. */
    case NeverNoticed = 'own_bar.never_noticed';
}
