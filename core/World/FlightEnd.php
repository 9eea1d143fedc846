<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** How a flight ended. */
enum FlightEnd
{
    case Flown;
    case Stopped;
    case Crashed;
}
