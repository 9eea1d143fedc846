<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** Something wrong with the time stamps: a gap, time going back, or stamps that repeat without reason. */
final readonly class TimeFault
{
    /** @param 'gap'|'back'|'repeat' $kind */
    public function __construct(public string $kind, public float $atS, public float $lengthS, public int $row)
    {
    }
}
