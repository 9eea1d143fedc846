<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** A gap-free run of samples on the log's uniform grid. */
final readonly class Segment
{
    public function __construct(public int $first, public int $count, public float $startS)
    {
    }

    public function endS(float $rateHz): float
    {
        return $this->startS + ($this->count - 1) / $rateHz;
    }
}
