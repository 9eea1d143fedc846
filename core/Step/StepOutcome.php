<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

/** What the peak of a step says, the same on every sheet. */
enum StepOutcome: string
{
    case Overshoots = 'overshoots';
    case FallsShort = 'falls_short';
    case Clean = 'clean';

    /** A loop of damping 0.5 peaks at 1.16; above that it visibly rings. */
    private const MOST = 1.16;

    private const LEAST = 0.97;

    /** @param float $peak of the step, 1 for what was asked */
    public static function ofPeak(float $peak): self
    {
        return match (true) {
            $peak > self::MOST => self::Overshoots,
            $peak < self::LEAST => self::FallsShort,
            default => self::Clean,
        };
    }
}
