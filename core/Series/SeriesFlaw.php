<?php

declare(strict_types=1);

namespace Ortholex\Core\Series;

use Ortholex\Core\Fact\Code;

/** Why a series cannot be planned so. */
enum SeriesFlaw: string implements Code
{
    case NothingVaried = 'series.nothing_varied';
    case NoNumber = 'series.no_number';
    case NothingToScale = 'series.nothing_to_scale';
    case Steps = 'series.steps';
    case NoRange = 'series.no_range';
    case Variants = 'series.variants';
}
