<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

/** The sticks as arming looks at them, and how it is set. */
final readonly class ArmingInput
{
    /**
     * @param float $yaw      −1 to 1
     * @param float $throttle 0 to 1
     */
    public function __construct(public float $yaw, public float $throttle, public bool $byStick, public bool $offNeedsLowThrottle)
    {
    }
}
