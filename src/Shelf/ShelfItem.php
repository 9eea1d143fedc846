<?php

declare(strict_types=1);

namespace Ortholex\App\Shelf;

use Ortholex\Core\Firmware\Manifest;

/** An image that can be chosen: from the shelf, or from disk. */
final readonly class ShelfItem
{
    public function __construct(public string $name, public string $path, public ?Manifest $manifest)
    {
    }
}
