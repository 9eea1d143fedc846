<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Saying;

use Ortholex\Core\Fact\Code;

/** What names the motor that stopped pushing. */
enum Evidence: string implements Code
{
    case UnexplainedRotation = 'evidence.unexplained_rotation';
    case RpmFell = 'evidence.rpm_fell';
}
