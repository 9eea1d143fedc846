<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Units;

use Ortholex\Core\Fact\Code;

/** What settled the unit of a column. */
enum UnitSource: string implements Code
{
    case Name = 'unit_source.name';
    case NameAlone = 'unit_source.name_alone';
    case Range = 'unit_source.range';
    case Setpoint = 'unit_source.setpoint';
    case Steps = 'unit_source.steps';
    case Outputs = 'unit_source.outputs';
    case Given = 'unit_source.given';
}
