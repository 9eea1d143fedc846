<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** Something wrong with the time stamps, where, and how long. */
final readonly class TimeFault
{
    public function __construct(public TimeFaultKind $kind, public float $atS, public float $lengthS, public int $row)
    {
    }
}
