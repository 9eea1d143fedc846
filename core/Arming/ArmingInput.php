<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

use Ortholex\Core\LinkLoss\Stage;

/** The sticks as arming looks at them, how it is set, and what ends a flight without the pilot. */
final readonly class ArmingInput
{
    /**
     * @param float $yaw      −1 to 1
     * @param float $throttle 0 to 1
     * @param Stage $stage    of the link-loss plan
     * @param bool  $stop     whether the board stops by itself; see SelfDisarm
     */
    public function __construct(
        public float $yaw,
        public float $throttle,
        public bool $byStick,
        public bool $offNeedsLowThrottle,
        public Stage $stage = Stage::Heard,
        public bool $stop = false,
    ) {
    }
}
