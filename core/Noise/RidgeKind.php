<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

/** Whether a ridge follows the motors, stands in the frame, or is where the loop swings of itself. */
enum RidgeKind: string
{
    case Climbing = 'climbing';
    case Standing = 'standing';
    case OwnSwing = 'own_swing';
    case CannotTell = 'cannot_tell';
}
