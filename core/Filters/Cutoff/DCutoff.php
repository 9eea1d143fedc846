<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters\Cutoff;

/** One cutoff of D's own low-pass: what noise it lets through, and what it costs. */
final readonly class DCutoff
{
    /**
     * @param float $noisePct RMS of D outside the band where the craft follows the stick, % of output
     * @param float $share    of all of D's power, how much that is
     * @param float $delayMs  of the low-pass at 30 Hz
     */
    public function __construct(public float $cutoffHz, public float $noisePct, public float $share, public float $delayMs)
    {
    }
}
