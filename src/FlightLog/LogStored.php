<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

/** A log was brought in; its traces can be looked at from now on. */
final readonly class LogStored
{
    public function __construct(public Log $log)
    {
    }
}
