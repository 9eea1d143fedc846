<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** What the peak of a step says, the same on every sheet. */
final readonly class StepVerdict
{
    public const OVERSHOOTS = 'overshoots';
    public const FALLS_SHORT = 'falls short';
    public const CLEAN = 'answers cleanly';

    /** A loop of damping 0.5 peaks at 1.16; above that it visibly rings. */
    private const MOST = 1.16;

    private const LEAST = 0.97;

    /** @return self::OVERSHOOTS|self::FALLS_SHORT|self::CLEAN */
    public static function of(float $peak): string
    {
        return $peak > self::MOST ? self::OVERSHOOTS : ($peak < self::LEAST ? self::FALLS_SHORT : self::CLEAN);
    }
}
