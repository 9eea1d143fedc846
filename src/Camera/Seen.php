<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

/** What a builder sees of the camera at a pulse. */
enum Seen: string
{
    case Binds = 'binds';
    case Level = 'level';
    case Points = 'points';
}
