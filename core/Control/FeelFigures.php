<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

/** What a feel means in the hand. */
final readonly class FeelFigures
{
    /**
     * @param float $turnS      time of one full turn at full stick
     * @param float $stepDps    the smallest change around the centre that the radio can send
     * @param float $halfShare  share of the full rate at half stick; 0.5 is straight
     */
    private function __construct(public float $turnS, public float $stepDps, public float $halfShare)
    {
    }

    /**
     * @param float $stepUs      what one step of a channel is
     * @param float $halfSpanUs  from the stick's middle to its end
     */
    public static function of(Feel $feel, float $stepUs, float $halfSpanUs): self
    {
        return new self(360 / $feel->full(), ($feel->centreSlope() * $stepUs) / $halfSpanUs, $feel->rate(0.5) / $feel->full());
    }
}
