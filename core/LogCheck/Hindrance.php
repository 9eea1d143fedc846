<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

/** What a flight showed that must be seen to before the next one. */
enum Hindrance
{
    /** A motor, a knock, a sensor: hands before sticks. */
    case Broken;

    /** A loop that swings, or noise through D: settings before sticks. */
    case Unstable;
}
