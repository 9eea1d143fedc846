<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/** What an output pad drives besides a motor, whose Place it names. */
enum PadLoad: string
{
    case None = 'none';
    case CameraTilt = 'camera_tilt';
}
