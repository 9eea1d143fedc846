<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** A return to be flown in the simulator: from where, in what wind, and what goes wrong. */
final readonly class ReturnTrial
{
    /**
     * @param float $distanceM  north of home
     * @param float $windMs     mean, with gusts of a quarter of it
     * @param float $fromDeg    where it blows from: 180 straight against the way home
     * @param float $chargeUsed share of the pack
     * @param bool  $beforeFix  armed before the fix: home is set where the fix came
     * @param float $blindS     the fix is lost for so long, once it is on its way; 0 for not
     */
    public function __construct(
        public float $distanceM,
        public float $heightM,
        public float $windMs,
        public float $fromDeg,
        public float $chargeUsed,
        public bool $beforeFix = false,
        public float $blindS = 0.0,
        public int $seed = 5,
    ) {
    }
}
