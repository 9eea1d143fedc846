<?php

declare(strict_types=1);

namespace Ortholex\Core\Series;

/** A flight of a series as one axis ranks it. */
final readonly class SeriesPoint
{
    /**
     * @param list<string> $differs settings other than the varied one that were otherwise than in the first flight
     * @param bool         $best    nothing that counts is better by more than it may be off
     */
    public function __construct(
        public float $value,
        public string $name,
        public ?float $figure,
        public ?float $off,
        public array $differs,
        public bool $hot,
        public bool $best = false,
    ) {
    }

    public function counts(): bool
    {
        return null !== $this->figure && [] === $this->differs && !$this->hot;
    }
}
