<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

/**
 * Phase delay at 30 Hz of notches that move, as a flight shows it: their H at each of many moments, weighted by how much the craft moves
 * there at that frequency; what a cross-spectrum of the whole log would give (Bendat and Piersol, Random Data, 6.1).
 */
final readonly class DelaySeen
{
    /** The flight is looked at in so many moments, each of so many cycles. */
    private const MOMENTS = 240;

    private const CYCLES = 22;

    /** @param list<array{int, int, float}> $moments run, sample and power there */
    private function __construct(private array $moments)
    {
    }

    /** @param list<list<float>> $runs gap-free, deg/s */
    public static function in(array $runs, float $logHz): self
    {
        $half = (int) ceil((self::CYCLES / WhatIf::DELAY_AT_HZ) * $logHz) >> 1;
        $room = array_map(static fn (array $run): int => max(0, \count($run) - 2 * $half), $runs);
        $all = array_sum($room);
        $moments = [];
        foreach ($room as $r => $n) {
            $of = $n > 0 ? max(1, (int) round((self::MOMENTS * $n) / $all)) : 0;
            for ($m = 0; $m < $of; ++$m) {
                $at = $half + intdiv($m * $n, $of);
                $moments[] = [$r, $at, self::power(\array_slice($runs[$r], $at - $half, 2 * $half), $logHz)];
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
        foreach ($this->moments as [$r, $at, $power]) {
            $speeds = array_map(static fn (array $motor): float => $motor[$r][$at], $rotors);
            $peaks = $tracked[$r] ?? [];
            $h = $moving->at($speeds, $peaks[intdiv($at * \count($peaks), $lengths[$r])] ?? [])->response(WhatIf::DELAY_AT_HZ);
            $re += ($power + 1e-12) * $h[0];
            $im += ($power + 1e-12) * $h[1];
        }

        return -atan2($im, $re) / (2 * \M_PI * WhatIf::DELAY_AT_HZ);
    }

    /**
     * Power at 30 Hz through a Hann window.
     *
     * @param list<float> $part
     */
    private static function power(array $part, float $logHz): float
    {
        $n = \count($part);
        $mean = array_sum($part) / max(1, $n);
        $re = $im = 0.0;
        foreach ($part as $i => $v) {
            $taper = (0.5 - 0.5 * cos((2 * \M_PI * $i) / $n)) * ($v - $mean);
            $at = (2 * \M_PI * WhatIf::DELAY_AT_HZ * $i) / $logHz;
            $re += $taper * cos($at);
            $im += $taper * sin($at);
        }

        return $re * $re + $im * $im;
    }
}
