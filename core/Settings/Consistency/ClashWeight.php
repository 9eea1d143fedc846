<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency;

/** Whether a clash stops a Commit. */
enum ClashWeight: string
{
    case Warn = 'warn';
    case Refuse = 'refuse';
}
