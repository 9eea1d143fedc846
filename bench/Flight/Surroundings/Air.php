<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Surroundings;

use Ortholex\Bench\Flight\Sensors\NoisePool;

/** What the air does to the turning of a craft: it damps it, gusts push at it, and on a fast drop of throttle it flies in its own wash. */
final class Air
{
    /** Of roll, pitch and yaw, 1/s. */
    private const DAMPING = [1.2, 1.2, 2.0];

    /** Throttle that drops faster than this stirs the wash, % per loop period over a second. */
    private const DROP = 8.0;

    /** @var array<int, float> deg/s² */
    private array $wash = [0.0, 0.0, 0.0];

    /** @var array<int, float> */
    private array $washLow = [0.0, 0.0, 0.0];

    /** @var array<int, float> slow gusts */
    private array $gust = [0.0, 0.0, 0.0];

    private float $level = 0.0;
    private float $throttleBefore = 0.0;
    private float $stir = 0.0;
    private readonly float $dt;

    public function __construct(private readonly float $loopHz)
    {
        $this->dt = 1.0 / $loopHz;
    }

    /** One control step. */
    public function stir(float $throttle, NoisePool $noise): void
    {
        $dt = $this->dt;
        $this->level *= 1 - 3.0 * $dt;
        $drop = ($this->throttleBefore - $throttle) * $this->loopHz;
        $this->throttleBefore += ($throttle - $this->throttleBefore) * 20 * $dt;
        if ($drop > self::DROP * $this->loopHz) {
            $this->level = min(1.0, $this->level + 6 * $dt);
        }
        $random = $noise->values;
        $at = $noise->at;
        for ($axis = 0; $axis < 3; ++$axis) {
            // Slow gusts, and the craft's own wash between about 5 and 30 Hz.
            $this->gust[$axis] += (-0.8 * $this->gust[$axis] + 60 * $random[$at]) * $dt * 4;
            $this->washLow[$axis] += (900 * $random[$at + 1] * sqrt($this->loopHz / 2000) - $this->washLow[$axis]) * 190 * $dt;
            $this->wash[$axis] += ($this->washLow[$axis] - $this->wash[$axis]) * 31 * $dt;
            $at += 2;
        }
        $noise->at = $at;
        $this->stir = 0.4 + 12 * $this->level;
    }

    /**
     * @param array<int, float> $rate deg/s
     *
     * @return array{float, float, float} deg/s²
     */
    public function turns(array $rate): array
    {
        return [
            $this->gust[0] + $this->stir * ($this->washLow[0] - $this->wash[0]) - self::DAMPING[0] * $rate[0],
            $this->gust[1] + $this->stir * ($this->washLow[1] - $this->wash[1]) - self::DAMPING[1] * $rate[1],
            0.4 * $this->gust[2] - self::DAMPING[2] * $rate[2],
        ];
    }
}
