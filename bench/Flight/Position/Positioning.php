<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Position;

/** What a position receiver will tell in a flight: when it first knows, when it loses it, and how much it wanders. */
final readonly class Positioning
{
    /**
     * @param float $firstS  when the first fix comes, s
     * @param float $lostS   when it is lost
     * @param float $againS  when it is there again
     * @param float $wanderM spread of its slow error, in each direction
     */
    public function __construct(
        public int $seed,
        public float $firstS = 0.0,
        public float $lostS = \INF,
        public float $againS = \INF,
        public float $wanderM = 0.7,
        public int $satellites = 14,
        public float $hdop = 0.9,
    ) {
    }

    public function knows(float $t): bool
    {
        return $t >= $this->firstS && ($t < $this->lostS || $t >= $this->againS);
    }
}
