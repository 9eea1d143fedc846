<?php

declare(strict_types=1);

namespace Ortholex\Bench\Time;

/** The world's clock, and how long physical things take: 1 is life, 0 is at once (for tests). */
interface Pace
{
    /** Seconds; only differences mean anything. */
    public function now(): float;

    /** How long something that takes $seconds in life takes here. */
    public function of(float $seconds): float;

    public function wait(float $seconds): void;
}
