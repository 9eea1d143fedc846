<?php

declare(strict_types=1);

namespace Ortholex\Core\RoadMap;

use Ortholex\Core\Fact\Code;

/** Why a tune stands where it stands, and what its next step is for. */
enum TuneReason: string implements Code
{
    case Repair = 'tune.repair';
    case TakeBack = 'tune.take_back';
    case Swings = 'tune.swings';
    case NoiseUnknown = 'tune.noise_unknown';
    case NotFlown = 'tune.not_flown';
    case ResponseUnknown = 'tune.response_unknown';
    case NoPlant = 'tune.no_plant';
    case DNoise = 'tune.d_noise';
    case Rings = 'tune.rings';
    case MarginSmall = 'tune.margin_small';
    case Sluggish = 'tune.sluggish';
    case NothingInReach = 'tune.nothing_in_reach';
    case Lags = 'tune.lags';
    case Tuned = 'tune.tuned';
}
