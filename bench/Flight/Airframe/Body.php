<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Airframe;

/** The rigid body of a craft and its rotors as figures of one physical step. */
final readonly class Body
{
    /** Torque of a prop about its own shaft over its thrust, m. */
    private const YAW_PER_THRUST = 0.016;

    /** A rotor slows down more lazily than it speeds up. */
    private const LAZY = 1.25;

    /** A prop turned backward pushes down, weakly: its blades meet the air with their hollow side. */
    private const BACKWARD_PUSH = -0.55;

    private const BACKWARD_YAW = -0.7;

    /**
     * @param list<array{float, float, float}> $effect deg/s² about each axis per full thrust, by motor
     * @param list<float>                      $pushes share of its thrust that lifts, by motor
     * @param float                            $lagUp  share of the way to its target that a rotor goes in a step
     */
    private function __construct(public array $effect, public array $pushes, public float $lagUp, public float $lagDown)
    {
    }

    /**
     * @param list<string> $faults
     * @param float        $h      physical step, s
     */
    public static function of(CraftPhysics $craft, array $faults, float $h): self
    {
        $effect = $pushes = [];
        foreach ($craft->frame->motors as $m) {
            $backward = \in_array("backward:$m->place", $faults, true);
            $push = $backward ? self::BACKWARD_PUSH : 1.0;
            $pushes[] = $push;
            $effect[] = [
                rad2deg((-$m->y * $craft->thrustN) / $craft->inertia[0]) * $push,
                rad2deg(($m->x * $craft->thrustN) / $craft->inertia[1]) * $push,
                rad2deg((-$m->spin * self::YAW_PER_THRUST * $craft->thrustN) / $craft->inertia[2]) *
                ($backward ? self::BACKWARD_YAW : 1.0),
            ];
        }

        return new self($effect, $pushes, 1 - exp(-$h / $craft->motorLagS), 1 - exp(-$h / ($craft->motorLagS * self::LAZY)));
    }
}
