<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Airframe;

/** Where a craft meets the ground: under and over each motor, so that it can lie on its back and on its side. */
final readonly class Feet
{
    /** Legs, as a share of the arms, and at least, m. */
    private const LEG = 0.28;

    private const LEAST_M = 0.02;

    /**
     * @param list<array{float, float, float}> $points forward, right, down from the centre of mass; m
     * @param int                              $atOnce how many carry it when it stands
     * @param float                            $reach  no foot is farther from the centre than that, m
     */
    private function __construct(public array $points, public int $atOnce, public float $leg, public float $reach)
    {
    }

    public static function of(CraftPhysics $craft): self
    {
        $arm = 0.0;
        foreach ($craft->frame->motors as $m) {
            $arm = max($arm, hypot($m->x, $m->y));
        }
        $leg = max(self::LEAST_M, self::LEG * $arm);
        $points = [];
        foreach ($craft->frame->motors as $m) {
            $points[] = [$m->x, $m->y, $leg];
            $points[] = [$m->x, $m->y, -$leg];
        }

        return new self($points, \count($craft->frame->motors), $leg, hypot($arm, $leg));
    }
}
