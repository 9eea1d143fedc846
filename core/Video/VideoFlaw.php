<?php

declare(strict_types=1);

namespace Ortholex\Core\Video;

use Ortholex\Core\Fact\Code;

/** Why no frequencies can be chosen, or a table of places not be read. */
enum VideoFlaw: string implements Code
{
    case PilotCount = 'video.pilot_count';
    case TooFewFree = 'video.too_few_free';
    case NoPlaces = 'video.no_places';
    case BadBand = 'video.bad_band';
    case NoSource = 'video.no_source';
}
