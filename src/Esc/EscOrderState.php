<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

/** How far the writing of one ESC has come; the value is said beside it. */
enum EscOrderState: string
{
    case Waiting = 'not tried';

    /** Begun, and its end was never heard. */
    case Writing = 'interrupted';

    case Failed = 'failed';

    /** The firmware runs, but what it held before is not back. */
    case LacksSettings = 'written, its settings not back';

    case Gone = 'no longer on this craft';
}
