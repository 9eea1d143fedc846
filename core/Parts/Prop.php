<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts;

/**
 * A prop, and the air it moves: T = c_T ρ n² D⁴ and P = c_P ρ n³ D⁵ (n in turns a second).
 *
 * c_T is a fit over small props by blades and pitch; c_P follows from it by momentum theory, P = T^1.5 / √(2 ρ A) over the figure of merit.
 */
final readonly class Prop
{
    public const AIR_KG_M3 = 1.225;
    private const THRUST = 0.082;
    private const BY_BLADES = 0.75;
    private const BY_PITCH = 0.6;

    /** What small props at such speeds make of the power of an ideal one. */
    private const MERIT = 0.44;

    public function __construct(
        public string $id,
        public string $name,
        public float $diameterMm,
        public float $pitchMm,
        public int $blades,
        public float $massG,
    ) {
    }

    public function thrustN(float $turns): float
    {
        return $this->thrust() * self::AIR_KG_M3 * $turns ** 2 * ($this->diameterMm / 1000) ** 4;
    }

    /** N·m that it takes to turn so many times a second. */
    public function torqueNm(float $turns): float
    {
        $power = $this->thrust() ** 1.5 * sqrt(2 / \M_PI) / self::MERIT;

        return $power * self::AIR_KG_M3 * $turns ** 2 * ($this->diameterMm / 1000) ** 5 / (2 * \M_PI);
    }

    /** kg·m² about its shaft: its blades as rods. */
    public function inertia(): float
    {
        return ($this->massG / 1000) * ($this->diameterMm / 1000) ** 2 / 12;
    }

    private function thrust(): float
    {
        return self::THRUST * $this->blades ** self::BY_BLADES * ($this->pitchMm / $this->diameterMm) ** self::BY_PITCH;
    }
}
