<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts;

/** A make of flight controller. */
final readonly class BoardPart
{
    /**
     * @param string       $id      its hardware id
     * @param list<string> $sensors
     * @param string       $chip    overlay chip that sits on it; '' for none
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $processor,
        public int $flashFrom,
        public int $flashEnd,
        public int $pageBytes,
        public array $sensors,
        public string $chip,
        public int $recorderMb,
        public int $outputs,
        public float $massG,
    ) {
    }
}
