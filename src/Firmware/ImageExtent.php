<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

/** Where an image lies, for the drawing of the flash. */
final readonly class ImageExtent
{
    public function __construct(
        public int $from,
        public int $end,
        public int $size,
        public int $pages,
        public int $gaps,
        public string $sha256,
    ) {
    }
}
