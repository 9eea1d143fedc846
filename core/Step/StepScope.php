<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

/** One window of a step response: what was asked, what the craft did, and the step that it alone would show. */
final readonly class StepScope
{
    /**
     * @param float       $rateHz   of the samples here
     * @param list<float> $setpoint deg/s
     * @param list<float> $rate     deg/s
     * @param float       $ownShare how much of its curve is its own, 0 to 1; the rest is the flight's
     */
    public function __construct(
        public float $rateHz,
        public array $setpoint,
        public array $rate,
        public StepCurve $curve,
        public float $ownShare,
    ) {
    }

    /** Largest |setpoint| in it, deg/s: with its edges, which count for less in the estimate. */
    public function largestDps(): float
    {
        return max([0.0, ...array_map(abs(...), $this->setpoint)]);
    }
}
