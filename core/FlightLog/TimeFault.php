<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** Something wrong with the time stamps, where, and how long. */
final readonly class TimeFault
{
    /** @param 'gap'|'left out'|'back'|'repeat' $kind a hole; one that unreadable rows explain; time going back; a stamp repeated */
    public function __construct(public string $kind, public float $atS, public float $lengthS, public int $row)
    {
    }
}
