<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;

/** Firmware was written to ESCs: what they hold may have started anew. */
final readonly class EscsFlashed
{
    /** @param list<string> $places */
    public function __construct(public Craft $craft, public array $places)
    {
    }
}
