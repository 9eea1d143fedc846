<?php

declare(strict_types=1);

namespace Ortholex\Bench\Esc;

/** One ESC as it is soldered in: its hardware, and which way its motor turns by the order of its three wires. */
final readonly class EscModel
{
    public const FLASH_FROM = 0x1000;
    public const FLASH_END = 0x5000;
    public const PAGE_BYTES = 512;

    /**
     * @param int    $turns  +1 clockwise from above while the direction is as wired, −1 counter-clockwise: by the wires of the motor
     *                       at its place
     * @param string $serial burnt into its processor
     */
    public function __construct(
        public string $maker,
        public string $layout,
        public int $clockMhz,
        public int $deadTimeNs,
        public bool $measuresHeat,
        public int $turns,
        public string $serial = '',
    ) {
    }
}
