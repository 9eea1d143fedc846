<?php

declare(strict_types=1);

namespace Ortholex\App\Shelf;

use Ortholex\Core\Esc\EscManifest;

/** One ESC image of the shelf. */
final readonly class EscShelfItem
{
    public function __construct(public string $name, public string $path, public EscManifest $manifest)
    {
    }
}
