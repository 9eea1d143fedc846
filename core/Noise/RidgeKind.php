<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

/** Whether a ridge follows the motors or stands in the frame. */
enum RidgeKind: string
{
    case Climbing = 'climbing';
    case Standing = 'standing';
    case CannotTell = 'cannot_tell';
}
