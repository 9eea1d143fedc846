<?php

declare(strict_types=1);

namespace Ortholex\App\Shelf;

use Ortholex\Core\Overlay\Chip\ChipManifest;

/** One image for an overlay chip of the shelf. */
final readonly class ChipShelfItem
{
    public function __construct(public string $name, public string $path, public ChipManifest $manifest)
    {
    }
}
