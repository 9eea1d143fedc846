<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

/** Which way an ESC turns its motor, against how it is soldered. */
enum TurningDirection: string
{
    case AsWired = 'as_wired';
    case Swapped = 'swapped';
}
