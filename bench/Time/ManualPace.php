<?php

declare(strict_types=1);

namespace Ortholex\Bench\Time;

/** A clock that only moves when someone waits: time-outs cost nothing in tests. */
final class ManualPace implements Pace
{
    public function __construct(private float $now = 1000.0)
    {
    }

    public function now(): float
    {
        return $this->now;
    }

    public function of(float $seconds): float
    {
        return $seconds;
    }

    public function wait(float $seconds): void
    {
        $this->now += max(0.0, $seconds);
    }
}
