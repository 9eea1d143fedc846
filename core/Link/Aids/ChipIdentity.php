<?php

declare(strict_types=1);

namespace Ortholex\Core\Link\Aids;

use Ortholex\Core\Firmware\Version;

/** An overlay chip as it tells of itself. */
final readonly class ChipIdentity
{
    /**
     * @param string       $kind        as it is printed on it
     * @param Version|null $version     that runs; null in its bootloader
     * @param int          $firmwareEnd below it lies its firmware, above it its letters
     */
    public function __construct(
        public string $kind,
        public ?Version $version,
        public int $firmwareEnd,
        public int $flashEnd,
        public int $pageBytes,
    ) {
    }
}
