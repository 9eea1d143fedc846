<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Saying;

use Ortholex\Core\Fact\Code;

/** What speaks against the motor that is named. */
enum Contradiction: string implements Code
{
    case NoMotorFits = 'contradiction.no_motor_fits';
    case SpeedAsUsual = 'contradiction.speed_as_usual';
}
