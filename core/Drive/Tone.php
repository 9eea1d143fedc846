<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

/** What an ESC plays through its motor. */
enum Tone: string
{
    case PowerOn = 'power_on';

    /** It took the upper end of the signal. */
    case TwoRising = 'two_rising';

    /** It took the lower end. */
    case ThreeFalling = 'three_falling';
}
