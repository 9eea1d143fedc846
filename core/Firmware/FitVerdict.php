<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

/** Whether an image suits the hardware it would be written to. */
enum FitVerdict: string
{
    case Fits = 'fits';
    case FitsBut = 'fits_but';
    case DoesNotFit = 'does_not_fit';
    case CannotTell = 'cannot_tell';
}
