<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts;

/** A make of pack. */
final readonly class PackPart
{
    public function __construct(
        public string $id,
        public string $name,
        public int $cells,
        public float $ah,
        public float $cellOhm,
        public float $mostA,
        public float $massG,
    ) {
    }

    public function ohm(): float
    {
        return $this->cells * $this->cellOhm;
    }
}
