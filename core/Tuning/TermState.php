<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

/** What P and D of an axis carry. */
enum TermState: string
{
    case Oscillation = 'proportional_oscillation';
    case Noise = 'derivative_noise';
    case Clean = 'clean';
    case CannotTell = 'cannot_tell';
}
