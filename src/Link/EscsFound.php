<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;

/** The ESCs of a craft answered for the first time. */
final readonly class EscsFound
{
    public function __construct(public Craft $craft)
    {
    }
}
