<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts;

/** A brushless motor by the figures on its sheet. */
final readonly class Motor
{
    /** What turns of it, of its weight; and at which share of the stator's radius. */
    private const BELL = 0.5;

    private const BELL_RADIUS = 1.12;

    /**
     * @param array{float, float} $statorMm diameter and height
     * @param float               $rpmPerV  without load
     * @param float               $ohm      between two of its wires
     * @param float               $idleA    that it takes without load
     */
    public function __construct(
        public string $id,
        public string $name,
        public array $statorMm,
        public float $rpmPerV,
        public float $ohm,
        public float $idleA,
        public float $massG,
        public int $magnets,
        public float $mostV,
    ) {
    }

    /** Torque per ampere, N·m/A: in SI the inverse of what it turns per volt. */
    public function torquePerA(): float
    {
        return 60 / (2 * \M_PI * $this->rpmPerV);
    }

    /** kg·m² of the part that turns, as a ring. */
    public function inertia(): float
    {
        return ($this->massG / 1000) * self::BELL * (self::BELL_RADIUS * $this->statorMm[0] / 2000) ** 2;
    }
}
