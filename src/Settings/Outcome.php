<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

/** How a change ended. */
enum Outcome: string
{
    case Done = 'done';
    case HalfDone = 'half_done';
    case Undone = 'undone';
}
