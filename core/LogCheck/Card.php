<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

/** A flight worth logging, by what its log can tell. */
enum Card: string
{
    /** Large random moves of roll and pitch together: step response. */
    case MixedSticks = 'mixed_sticks';

    /** Every throttle level: noise. */
    case HoverAndClimb = 'hover_and_climb';

    /** One flip after another: prop wash and saturation. */
    case FlipSet = 'flip_set';

    /** Slow, smooth moves. */
    case Cruise = 'cruise';
}
