<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

/** What a running board reports of the moment. */
final readonly class BoardState
{
    public function __construct(
        public float $uptimeS,
        public float $rollDeg,
        public float $pitchDeg,
        public float $yawDeg,
        public float $batteryV,
        public float $loadPct,
        public bool $packRail,
    ) {
    }
}
