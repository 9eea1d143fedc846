<?php

declare(strict_types=1);

namespace Ortholex\Bench\Time;

use Ortholex\Core\Time\SteadyClock;

/** Real time, stretched or pressed by a factor. */
final readonly class WallPace implements Pace
{
    public function __construct(private SteadyClock $clock, private float $factor = 1.0)
    {
    }

    public function now(): float
    {
        return $this->clock->now();
    }

    public function of(float $seconds): float
    {
        return $seconds * $this->factor;
    }

    public function wait(float $seconds): void
    {
        $us = (int) ($seconds * $this->factor * 1e6);
        if ($us > 0) {
            usleep($us);
        }
    }
}
