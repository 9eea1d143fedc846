<?php

declare(strict_types=1);

namespace Ortholex\Bench\Camera;

/** The servo that tilts the camera, with its linkage: where a pulse points it, and where it binds. */
final readonly class TiltServo
{
    /** Beyond its stop by so much it buzzes, deg. */
    private const GIVES_DEG = 1.0;

    /** @param array<string, float> $made middle_us, us_per_deg (below 0: reversed), low_deg, high_deg, most_hz */
    private function __construct(private array $made)
    {
    }

    /**
     * @param array<string, float> $made
     *
     * @return self|null null for a camera that is fixed
     */
    public static function of(array $made): ?self
    {
        return [] === $made ? null : new self($made);
    }

    /** Where it points, nose up is +; deg. */
    public function deg(float $us): float
    {
        return max($this->made['low_deg'], min($this->made['high_deg'], $this->wants($us)));
    }

    /** Whether it strains against its stop, or is driven faster than it can follow. */
    public function buzzes(float $us, float $hz): bool
    {
        return abs($this->wants($us) - $this->deg($us)) > self::GIVES_DEG || $hz > $this->made['most_hz'];
    }

    private function wants(float $us): float
    {
        return ($us - $this->made['middle_us']) / $this->made['us_per_deg'];
    }
}
