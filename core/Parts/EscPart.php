<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts;

/** A make of ESC. */
final readonly class EscPart
{
    public function __construct(
        public string $id,
        public string $name,
        public string $layout,
        public int $clockMhz,
        public int $deadTimeNs,
        public bool $measuresHeat,
        public float $amps,
        public int $mostCells,
        public float $ohm,
        public float $massG,
        public int $switchingKhz,
    ) {
    }
}
