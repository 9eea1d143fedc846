<?php

declare(strict_types=1);

namespace Ortholex\Core\Compass;

use Ortholex\Core\Fact\Code;

/** Why a compass cannot be calibrated from what was shown. */
enum CompassFlaw: string implements Code
{
    case TooFew = 'compass.too_few';
    case NotCovered = 'compass.not_covered';
    case NoEllipsoid = 'compass.no_ellipsoid';
    case TooCrooked = 'compass.too_crooked';
    case TooRough = 'compass.too_rough';
    case MountingUnclear = 'compass.mounting_unclear';
}
