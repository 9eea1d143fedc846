<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Search;

/** What was found; the value stands beside its name. */
enum HitKind: string
{
    case Sheet = 'sheet';
    case Action = 'action';
    case Log = 'log';
    case Setting = 'setting';
    case Craft = 'craft';
}
