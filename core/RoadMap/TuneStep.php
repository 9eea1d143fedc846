<?php

declare(strict_types=1);

namespace Ortholex\Core\RoadMap;

/** The stations of a tune, in their order. */
enum TuneStep: string
{
    /** What is broken, or swings, comes before any tuning. */
    case Sound = 'sound';
    case Filters = 'filters';
    case Damping = 'damping';
    case Firmness = 'firmness';
    case Yaw = 'yaw';
    case FeedForward = 'feed_forward';
    case Done = 'done';
}
