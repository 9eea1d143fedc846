<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

/**
 * Phase delay at 30 Hz of notches that move: that of their H averaged along the flight, at many moments evenly. How strongly the craft
 * moved at each does not count: the next flight moves otherwise, and the same chain would seem to have another delay.
 */
final readonly class DelaySeen
{
    /** The flight is looked at in so many moments. */
    private const MOMENTS = 240;

    /** What is nearer to the end of a run is left out, s: it stands on the ground there, and windows count it little. */
    private const ASIDE_S = 0.37;

    /** @param list<array{int, int}> $moments run and sample */
    private function __construct(private array $moments)
    {
    }

    /** @param list<int> $lengths of the gap-free runs, samples */
    public static function in(array $lengths, float $logHz): self
    {
        $aside = (int) ceil(self::ASIDE_S * $logHz);
        $room = array_map(static fn (int $n): int => max(0, $n - 2 * $aside), $lengths);
        $all = array_sum($room);
        $moments = [];
        foreach ($room as $r => $n) {
            $of = $n > 0 ? max(1, (int) round((self::MOMENTS * $n) / $all)) : 0;
            for ($m = 0; $m < $of; ++$m) {
                $moments[] = [$r, $aside + intdiv((2 * $m + 1) * $n, 2 * $of)];
            }
        }

        return new self($moments);
    }

    /**
     * @param list<list<list<float>>> $rotors  Hz, by motor and run
     * @param list<list<list<float>>> $tracked middles of the tracking notches by run, Hz
     * @param list<int>               $lengths of the runs
     *
     * @return float s
     */
    public function of(MovingNotches $moving, array $rotors, array $tracked, array $lengths): float
    {
        if ($moving->areOff() || [] === $this->moments) {
            return 0.0;
        }
        $re = $im = 0.0;
        foreach ($this->moments as [$r, $at]) {
            $speeds = array_map(static fn (array $motor): float => $motor[$r][$at], $rotors);
            $peaks = $tracked[$r] ?? [];
            $h = $moving->at($speeds, $peaks[intdiv($at * \count($peaks), $lengths[$r])] ?? [])->response(WhatIf::DELAY_AT_HZ);
            $re += $h[0];
            $im += $h[1];
        }

        return -atan2($im, $re) / (2 * \M_PI * WhatIf::DELAY_AT_HZ);
    }
}
