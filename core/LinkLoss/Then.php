<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

/** What a craft does when the hold is over and its radio has not come back. */
enum Then: string
{
    case Cut = 'cut';
    case Descend = 'descend';
    case Return = 'return';
}
