<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

/** What a board has to show, each from its source; null where that is silent. */
final readonly class OverlayReadings
{
    /** @param list<string> $warnings */
    public function __construct(
        public ?float $packV = null,
        public int $cells = 1,
        public ?float $currentA = null,
        public ?float $usedAh = null,
        public ?float $minutesLeft = null,
        public float $flightS = 0.0,
        public ?float $linkPct = null,
        public ?float $signalDbm = null,
        public float $throttlePct = 0.0,
        public ?float $heightM = null,
        public ?float $climbMs = null,
        public ?float $speedMs = null,
        public ?float $homeM = null,
        public ?float $homeDeg = null,
        public ?float $latDeg = null,
        public ?float $lonDeg = null,
        public ?int $satellites = null,
        public ?float $headingDeg = null,
        public float $rollDeg = 0.0,
        public float $pitchDeg = 0.0,
        public ?float $cameraDeg = null,
        public ?float $mhz = null,
        public string $name = '',
        public string $modes = '',
        public array $warnings = [],
    ) {
    }
}
