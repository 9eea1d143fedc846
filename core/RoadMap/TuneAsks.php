<?php

declare(strict_types=1);

namespace Ortholex\Core\RoadMap;

/** What must be so that a tune goes on past a station. */
enum TuneAsks: string
{
    case Sound = 'sound';
    case Filters = 'filters';
    case Damping = 'damping';
    case Firmness = 'firmness';
    case Yaw = 'yaw';
    case FeedForward = 'feed_forward';
    case Done = 'done';

    public static function at(TuneStep $step): self
    {
        return self::from($step->value);
    }
}
