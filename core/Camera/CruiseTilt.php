<?php

declare(strict_types=1);

namespace Ortholex\Core\Camera;

use Ortholex\Core\Signal\Statistics;

/** How a craft leans at its cruise, from its flights: the camera looks level when it is tilted against that. */
final readonly class CruiseTilt
{
    /** Slower than this is no cruise, m/s. */
    private const LEAST_MS = 2.0;

    private const LEAST_SAMPLES = 50;

    private function __construct(public float $speedMs, public float $pitchDeg, public float $spreadDeg)
    {
    }

    /**
     * @param list<float> $speedMs  over the ground
     * @param list<float> $pitchDeg nose up is +
     *
     * @return self|null null where it was never flown
     */
    public static function of(array $speedMs, array $pitchDeg): ?self
    {
        $fast = array_filter($speedMs, static fn (float $v): bool => $v >= self::LEAST_MS);
        if (\count($fast) < self::LEAST_SAMPLES) {
            return null;
        }
        $fast = array_values($fast);
        $cruise = Statistics::quantile($fast, 0.6);
        $pitch = [];
        foreach ($speedMs as $i => $v) {
            if (abs($v - $cruise) < 0.15 * $cruise && isset($pitchDeg[$i])) {
                $pitch[] = $pitchDeg[$i];
            }
        }

        return \count($pitch) < self::LEAST_SAMPLES / 2
            ? null
            : new self($cruise, Statistics::median($pitch), Statistics::quantile($pitch, 0.75) - Statistics::quantile($pitch, 0.25));
    }

    /** Against the craft, nose up is +; deg. */
    public function cameraDeg(): float
    {
        return -$this->pitchDeg;
    }
}
