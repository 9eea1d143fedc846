<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

/** What a board says of itself, whether by its firmware or by its bootloader. */
final readonly class BoardIdentity
{
    /**
     * @param string       $firmware product, '' when only the bootloader runs
     * @param list<string> $leftOut  what the running build leaves out
     * @param list<string> $sensors  what the firmware found on the board
     */
    public function __construct(
        public string $hardwareId,
        public string $board,
        public string $processor,
        public int $flashFrom,
        public int $flashEnd,
        public int $pageBytes,
        public string $serial,
        public string $firmware,
        public ?Version $version,
        public bool $inBootloader,
        public array $leftOut = [],
        public array $sensors = [],
    ) {
    }
}
