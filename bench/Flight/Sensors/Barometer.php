<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Sensors;

/** Height by air pressure, with the noise of a small sensor, and climb: what the firmware makes of it together with its accelerometer. */
final class Barometer
{
    private const NOISE_M = 0.25;

    /** The height is drawn to what pressure says, 1/s. */
    private const DRAWN = 0.8;

    public float $height = 0.0;
    public float $climb = 0.0;
    private bool $first = true;
    private readonly NoisePool $noise;

    public function __construct(int $seed)
    {
        $this->noise = new NoisePool($seed);
    }

    public function look(float $trueHeight, float $trueClimb, float $dt): void
    {
        $this->noise->have(1);
        $says = $trueHeight + self::NOISE_M * $this->noise->values[$this->noise->at++];
        $this->height = $this->first ? $says : $this->height + $trueClimb * $dt + self::DRAWN * ($says - $this->height) * $dt;
        $this->climb = $trueClimb;
        $this->first = false;
    }
}
