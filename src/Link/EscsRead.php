<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;

/** What the ESCs of a craft are and hold is known anew. */
final readonly class EscsRead
{
    public function __construct(public Craft $craft)
    {
    }
}
