<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Migration;

/** What became of one setting between two releases. */
enum FateKind: string
{
    case Kept = 'kept';
    case Converted = 'converted';
    case Clipped = 'clipped';
    case Dropped = 'dropped';
    case New = 'new';
}
