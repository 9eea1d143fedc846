<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\RidgeKind;
use Ortholex\Core\Step\LoopModel;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Core\Tuning\TermVerdict;

/**
 * Ridges that stand where the loop swings of itself: what shakes there is the tune, not the frame. A loop with little margin rings at the
 * frequency at which its answer to the stick peaks, whatever pushes it. A loop that swings all the time does so with its harmonics, and
 * shakes the other axes too.
 */
final class OwnSwing
{
    /** A ridge that close to the swing is the swing. */
    private const NEAR = 0.2;

    /** Of a swing that goes on, on any axis: its multiples, this closely. */
    private const MULTIPLES = 8;

    private const EXACTLY = 0.035;

    /** An answer that peaks less than this over what it holds does not ring. */
    private const RINGS = 1.4;

    /** No loop of a craft swings faster, Hz. */
    private const FASTEST_HZ = 80;

    private const SLOWEST_HZ = 3;

    /**
     * @param list<Ridge>                $ridges
     * @param array<string, TermVerdict> $verdicts by axis
     * @param array<string, AxisReport>  $axes
     *
     * @return list<Ridge>
     */
    public static function named(array $ridges, array $verdicts, array $axes): array
    {
        return array_map(static function (Ridge $ridge) use ($verdicts, $axes): Ridge {
            if (RidgeKind::Climbing === $ridge->kind) {
                return $ridge;
            }
            $verdict = $verdicts[$ridge->axis->value] ?? null;
            $swings = [
                TermState::Oscillation === $verdict?->verdict ? $verdict->hz : null,
                self::ringing(($axes[$ridge->axis->value] ?? null)?->step?->loop),
            ];
            foreach ($swings as $hz) {
                if (null !== $hz && abs($ridge->hz - $hz) < self::NEAR * $hz) {
                    return $ridge->ofLoop();
                }
            }
            foreach ($verdicts as $one) {
                if (TermState::Oscillation === $one->verdict && null !== $one->hz && self::isMultiple($ridge->hz, $one->hz)) {
                    return $ridge->ofLoop();
                }
            }

            return $ridge;
        }, $ridges);
    }

    private static function isMultiple(float $hz, float $of): bool
    {
        $n = max(1, (int) round($hz / $of));

        return $n <= self::MULTIPLES && abs($hz - $n * $of) < self::EXACTLY * $hz && abs($hz - $n * $of) < 0.25 * $of;
    }

    /** Where the loop's answer to the stick peaks, Hz; null where it hardly does. */
    private static function ringing(?LoopModel $loop): ?float
    {
        if (null === $loop) {
            return null;
        }
        $still = hypot(...$loop->response(2 * \M_PI * 0.5));
        $best = [0.0, 0.0];
        for ($hz = self::SLOWEST_HZ; $hz <= self::FASTEST_HZ; ++$hz) {
            $size = hypot(...$loop->response(2 * \M_PI * $hz));
            $best = $size > $best[0] ? [$size, (float) $hz] : $best;
        }

        return $best[0] > self::RINGS * $still && $best[1] > self::SLOWEST_HZ ? $best[1] : null;
    }
}
