<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Sensors;

/** Normal random numbers drawn ahead in blocks, and where the flight stands in them; taken in order, so that a seed gives one flight. */
final class NoisePool
{
    private const BLOCK = 8192;

    /** @var list<float> */
    public array $values = [];

    public int $at = 0;
    private readonly Noise $noise;

    public function __construct(int $seed)
    {
        $this->noise = new Noise($seed);
    }

    /** Makes sure that so many lie ahead. */
    public function have(int $count): void
    {
        if ($this->at + $count > \count($this->values)) {
            $this->values = $this->noise->block(self::BLOCK);
            $this->at = 0;
        }
    }
}
