<?php

declare(strict_types=1);

namespace Ortholex\Core\Step\Confidence;

use Ortholex\Core\Fact\Code;

/** The flight that would tell what this one does not. */
enum FlyInstead: string implements Code
{
    case WithoutFeedForwardAndAddedD = 'fly_instead.without_feed_forward_and_added_d';
    case WithoutFeedForward = 'fly_instead.without_feed_forward';
    case WithSteadyD = 'fly_instead.with_steady_d';
    case LongerAndLarger = 'fly_instead.longer_and_larger';
}
