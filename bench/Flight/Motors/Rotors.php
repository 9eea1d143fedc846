<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Motors;

use Ortholex\Bench\Flight\Airframe\Body;

/** The motors of a craft and their props: signal and ESC take three physical steps, then each rotor follows as a first-order lag. */
final class Rotors
{
    /** A prop turned backward by its motor meets the air with its hollow side, and pushes down weakly. */
    private const BACKWARD = 0.55;

    /** @var array<int, float> of each, of full; negative when it turns backward */
    public array $speed;

    /** Of all, of one at full: upward through the craft. */
    public float $lift = 0.0;

    /** @var array<int, float> what came three steps ago, %, and after it */
    private array $late;

    /** @var array<int, float> */
    private array $middle;

    /** @var array<int, float> */
    private array $fresh;

    public function __construct(private readonly Body $body, private readonly int $count)
    {
        $this->speed = $this->late = $this->middle = $this->fresh = array_fill(0, $count, 0.0);
    }

    /**
     * One physical step.
     *
     * @param array<int, float> $output % by motor; negative is backward
     * @param float             $push   volts of the pack over those that a motor is rated at
     * @param float             $ax     what turns the craft about roll besides, deg/s²; $ay and $az about pitch and yaw
     *
     * @return array{float, float, float} deg/s² about each axis, with it
     */
    public function turn(array $output, float $push, float $ax, float $ay, float $az): array
    {
        $lift = 0.0;
        $body = $this->body;
        for ($i = 0; $i < $this->count; ++$i) {
            $target = $this->late[$i] * 0.01 * $push;
            $this->late[$i] = $this->middle[$i];
            $this->middle[$i] = $this->fresh[$i];
            $this->fresh[$i] = $output[$i];
            $w = $this->speed[$i];
            $w += ($target - $w) * ($target > $w ? $body->lagUp : $body->lagDown);
            $this->speed[$i] = $w;
            $t = $w < 0 ? -self::BACKWARD * $w * $w : $w * $w;
            $lift += $t * $body->pushes[$i];
            $e = $body->effect[$i];
            $ax += $e[0] * $t;
            $ay += $e[1] * $t;
            $az += $e[2] * $t;
        }
        $this->lift = $lift;

        return [$ax, $ay, $az];
    }

    /** They turn already, at this speed of full. */
    public function spin(float $speed): void
    {
        $this->speed = array_fill(0, $this->count, $speed);
        $this->late = $this->middle = $this->fresh = array_fill(0, $this->count, 100 * $speed);
    }

    /** A, of a pack that drives them, beside what the electronics take. */
    public function current(float $fullA): float
    {
        $cubes = 0.0;
        foreach ($this->speed as $w) {
            $cubes += abs($w) ** 3;
        }

        return ($fullA * $cubes) / $this->count;
    }
}
