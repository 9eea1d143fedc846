<?php

declare(strict_types=1);

namespace Ortholex\App\Identity\Believed;

/** Which stands where book and craft differ. */
enum Stands: string
{
    case Craft = 'craft';
    case Book = 'book';
}
