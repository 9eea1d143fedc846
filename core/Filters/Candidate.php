<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Craft\SettingSet;

/** One chain on the trade-off: what it leaves of the noise, and what it costs. */
final readonly class Candidate
{
    /**
     * @param SettingSet $chain       the settings that make it
     * @param float      $residualDps RMS above 20 Hz, root of the mean square over the axes logged
     * @param float      $delayMs     phase delay of the rate path at 30 Hz; the mean of these axes
     */
    public function __construct(public SettingSet $chain, public float $residualDps, public float $delayMs)
    {
    }

    /** A chain that was run for itself; null where the log told nothing of it. */
    public static function told(SettingSet $chain, WhatIf $by): ?self
    {
        $n = \count($by->axes);
        if (0 === $n) {
            return null;
        }
        $power = $delay = 0.0;
        foreach ($by->axes as $axis) {
            $power += $axis->residualDps ** 2 / $n;
            $delay += $axis->delayMs / $n;
        }

        return new self($chain, sqrt($power), $delay);
    }

    /** Whether it is as good as another in both, and better in one. */
    public function beats(self $other): bool
    {
        return $this->residualDps <= $other->residualDps
            && $this->delayMs <= $other->delayMs
            && ($this->residualDps < $other->residualDps || $this->delayMs < $other->delayMs);
    }
}
