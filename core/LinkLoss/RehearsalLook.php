<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

/** One look at the board during a rehearsal. */
final readonly class RehearsalLook
{
    /**
     * @param float       $atS      since the transmitter was switched off
     * @param bool        $frames   whether whole frames came
     * @param bool        $failsafe whether they say that the receiver hears nobody
     * @param list<float> $channels µs
     * @param float       $sinceS   since the last frame that counts
     */
    public function __construct(
        public float $atS,
        public bool $frames,
        public bool $failsafe,
        public array $channels,
        public Stage $stage,
        public float $sinceS,
    ) {
    }
}
