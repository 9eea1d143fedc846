<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

/** The step of teaching analogue ESCs their end points that is to be done now. */
enum CalibrationStep: string
{
    case PackOff = 'pack_off';
    case Full = 'full';
    case PackOn = 'pack_on';
    case Zero = 'zero';
    case End = 'end';
    case NotNeeded = 'not_needed';
}
