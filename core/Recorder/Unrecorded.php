<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

/** Why a flight left no recording. */
enum Unrecorded: string
{
    /** The board has no memory for logs. */
    case NoMemory = 'no_memory';

    /** It is set to write elsewhere, or nowhere. */
    case Elsewhere = 'elsewhere';

    /** A lever turns recording on, and stood off. */
    case LeverOff = 'lever_off';

    /** Nothing more went in. */
    case Full = 'full';
}
