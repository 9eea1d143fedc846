<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Step\StepOutcome;

/** Gains that would answer without ringing, found on the identified axis, with what they would do and cost. */
final readonly class GainAdvice
{
    private const WANTED_PEAK = 1.08;

    /** Most that the noise reaching the motors may grow, as a factor. */
    private const NOISE_GROWTH = 1.9;

    private function __construct(public GainSet $gains, public LoopPrediction $before, public LoopPrediction $after)
    {
    }

    /** Null when the axis answers well enough, or nothing in reach would better it. */
    public static function from(AxisPlant $plant, GainSet $now, RateFilters $filters, float $measuredPeak): ?self
    {
        if (StepOutcome::Overshoots !== StepOutcome::ofPeak($measuredPeak)) {
            return null;
        }
        $before = LoopPrediction::of($plant, $now, $filters);
        $best = null;
        $cost = \INF;
        $least = max($now->d, 0.2);
        foreach ([1.0, 0.95, 0.9, 0.85, 0.8, 0.75, 0.7] as $p) {
            foreach ([1.0, 1.15, 1.3, 1.5, 1.7, 1.9, 2.1, 2.4] as $d) {
                $gains = new GainSet(round(2 * $now->p * $p) / 2, $now->i, min(8.0, round(10 * $least * $d) / 10), $now->ff);
                $after = LoopPrediction::of($plant, $gains, $filters);
                if (!$after->isStable() || $after->noiseGain > self::NOISE_GROWTH * $before->noiseGain) {
                    continue;
                }
                $numbers = $after->curve->numbers();
                $score =
                    ($numbers->delayMs ?? 100.0) +
                    300 * max(0.0, $numbers->peak - self::WANTED_PEAK) +
                    (2.0 * $after->noiseGain) / $before->noiseGain +
                    6 * max(0.0, $after->sensitivity - 1.7);
                if ($score < $cost) {
                    $cost = $score;
                    $best = new self($gains, $before, $after);
                }
            }
        }
        if (null === $best || ($best->gains->p === $now->p && $best->gains->d === $now->d)) {
            return null;
        }

        return $best->after->curve->numbers()->peak < $before->curve->numbers()->peak - 0.03 ? $best : null;
    }
}
