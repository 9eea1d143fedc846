<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Pilot;

use Ortholex\Bench\Flight\Surroundings\Motion;

/** When a pilot switches the transmitter off on purpose: once the craft is that high and that far away, or at a time. */
final readonly class SwitchOff
{
    private function __construct(private float $heightM, private float $distanceM, private float $timeS)
    {
    }

    public static function there(float $heightM, float $distanceM): self
    {
        return new self($heightM, $distanceM, 0.0);
    }

    public static function at(float $timeS): self
    {
        return new self(-\INF, 0.0, $timeS);
    }

    public function isDue(float $t, Motion $craft): bool
    {
        return $t >= $this->timeS && $craft->height() >= 0.97 * $this->heightM
            && hypot($craft->at[0], $craft->at[1]) >= 0.97 * $this->distanceM;
    }
}
