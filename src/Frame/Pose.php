<?php

declare(strict_types=1);

namespace Ortholex\App\Frame;

/** How the builder holds the craft for its accelerometer to be read; the value stands in its row. */
enum Pose: string
{
    case Level = 'level';
    case NoseUp = 'nose_up';
}
