<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

/** What an unmet condition of arming does. */
enum IfUnmet: string
{
    case Forbid = 'forbid';
    case Warn = 'warn';
}
