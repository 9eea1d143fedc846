<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Signal\Statistics;

/** Motors that stopped, as their logged speed says: direct evidence. */
final readonly class RpmLosses
{
    /** Speed below this share of what its output usually gives is no speed of a motor that runs. */
    private const LOST_SHARE = 0.5;

    /** Where it begins to fall behind, the loss begins. */
    private const BEHIND_SHARE = 0.8;

    /** Of its highest usual speed, at which a motor stands. */
    private const STILL_SHARE = 0.02;

    private const SMOOTH_S = 0.06;
    private const RPM_LOST_S = 0.08;
    private const RAN_S = 0.5;
    private const BIN_PCT = 5.0;

    /** Below this output a motor may well stand still, %. */
    private const LEAST_OUTPUT_PCT = 12.0;

    /**
     * Motors whose logged speed fell far below what the same output gives in the rest of the flight: direct evidence.
     *
     * @return list<Suspicion> in order of time
     */
    public static function of(FlightRun $run): array
    {
        $w = max(1, (int) round(self::SMOOTH_S / $run->stepS));
        $least = (int) ceil(self::RPM_LOST_S / $run->stepS);
        $found = [];
        foreach ($run->rpm as $m => $rpm) {
            if (null === $rpm) {
                continue;
            }
            $speed = self::smoothed($rpm, $w);
            $output = self::smoothed($run->outputs[$m], $w);
            $usual = self::usual($speed, $output);
            $held = $ran = 0;
            $from = $still = null;
            $stands = self::STILL_SHARE * max([0.0, ...$usual]);
            foreach ($speed as $i => $v) {
                $expected = $usual[(int) ($output[$i] / self::BIN_PCT)] ?? 0.0;
                // One that gathers speed is not lost: a heavy prop called up from idle takes its time.
                $gathers = $v > $speed[max(0, $i - $w)] + $stands;
                $lost = $output[$i] >= self::LEAST_OUTPUT_PCT && $expected > 0 && $v < self::LOST_SHARE * $expected && !$gathers;
                $held = $lost ? $held + 1 : 0;
                $ran += $expected > 0 && $v >= self::BEHIND_SHARE * $expected && $output[$i] >= self::LEAST_OUTPUT_PCT ? 1 : 0;
                $still = $v <= $stands ? $still ?? $i : null;
                // What has not run yet is only starting.
                if (null === $from && $held >= $least && $ran * $run->stepS >= self::RAN_S) {
                    // Armed, a motor turns even when little is asked: where it stood still before it was called for, it was lost already.
                    $from = min($i - $held + 1, $still ?? $i);
                    // Back to where it began to fall behind; a mean over the past comes late by half its length.
                    $reach = max(0, $from - $w);
                    while (
                        $from > $reach
                        && $speed[$from - 1] < self::BEHIND_SHARE * ($usual[(int) ($output[$from - 1] / self::BIN_PCT)] ?? 0.0)
                    ) {
                        --$from;
                    }
                    $from = max(0, $from - intdiv($w, 2));
                } elseif (null !== $from && !$lost && $v > self::BEHIND_SHARE * $expected && $output[$i] >= self::LEAST_OUTPUT_PCT) {
                    $found[] = Suspicion::ofRpm($run, $from, $i, $m);
                    $from = null;
                }
            }
            if (null !== $from) {
                $found[] = Suspicion::ofRpm($run, $from, \count($speed) - 1, $m);
            }
        }
        usort($found, static fn (Suspicion $a, Suspicion $b): int => $a->from <=> $b->from);

        return $found;
    }

    /**
     * Speed that an output gives, as its upper quartile: a motor lost for part of the flight does not draw it down.
     *
     * @param list<float> $speed
     * @param list<float> $output
     *
     * @return array<int, float> by bin of output; never falling; bins without data take that of the next lower one
     */
    private static function usual(array $speed, array $output): array
    {
        $bins = [];
        foreach ($output as $i => $v) {
            if (0 === $i % 4) {
                $bins[(int) ($v / self::BIN_PCT)][] = $speed[$i];
            }
        }
        $usual = [];
        $last = 0.0;
        for ($b = 0; $b <= (int) (100 / self::BIN_PCT); ++$b) {
            // A motor that is lost stands in its bins with nothing: more output never gives less speed.
            $last = isset($bins[$b]) && \count($bins[$b]) >= 10 ? max($last, Statistics::quantile($bins[$b], 0.75)) : $last;
            $usual[$b] = $last;
        }

        return $usual;
    }

    /**
     * @param list<float> $values
     *
     * @return list<float> means over the last $w
     */
    private static function smoothed(array $values, int $w): array
    {
        $out = [];
        $sum = 0.0;
        foreach ($values as $i => $v) {
            $sum += $v - ($i >= $w ? $values[$i - $w] : 0.0);
            $out[] = $sum / min($w, $i + 1);
        }

        return $out;
    }
}
