<?php

declare(strict_types=1);

namespace Ortholex\Core\Guard;

/** Work that can turn a motor, whether it is meant to or not. */
enum MotorWork: string
{
    case Spin = 'spin';
    case HoldOutputsAtFull = 'hold_outputs_at_full';
    case FlashEsc = 'flash_esc';
}
