<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;

/** ESCs were found on other pads than before: someone has soldered. */
final readonly class EscsMoved
{
    /** @param array<int, int> $pads pad of now by pad of before */
    public function __construct(public Craft $craft, public array $pads)
    {
    }
}
