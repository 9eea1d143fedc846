<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\SignalError;

/** Everything a log tells, axis by axis: a pure function of the log. */
final readonly class FlightAnalysis
{
    /** Raised whenever a result would change for the same log, so that stored results are not mistaken for new ones. */
    public const VERSION = 1;

    /** @param array<string, AxisReport> $axes */
    private function __construct(public array $axes)
    {
    }

    public static function of(FlightLog $log): self
    {
        $axes = [];
        $movement = [];
        foreach (Traces::AXES as $axis) {
            $movement[$axis] = $log->has("setpoint_{$axis}_dps") ? self::rms($log->runs("setpoint_{$axis}_dps")) : 0.0;
        }
        foreach (Traces::AXES as $axis) {
            $others = $movement;
            unset($others[$axis]);
            $axes[$axis] = self::axis($log, $axis, max($others));
        }

        return new self($axes);
    }

    private static function axis(FlightLog $log, string $axis, float $otherMovement): AxisReport
    {
        $rateHz = $log->clock->rateHz;
        $measuredName = "rate_measured_{$axis}_dps";
        $filteredName = "rate_filtered_{$axis}_dps";
        $measuredRuns = $log->has($measuredName) ? $log->runs($measuredName) : null;
        $filteredRuns = $log->has($filteredName) ? $log->runs($filteredName) : null;
        $step = null;
        // The rotation itself is nearer the measured rate: the filtered one comes later by the filters' delay.
        $rate = $measuredRuns ?? $filteredRuns;
        if (null === $rate) {
            $belief = Belief::none("the log has no rotation rate of $axis");
        } elseif (!$log->has("setpoint_{$axis}_dps")) {
            $belief = Belief::none("the log has no setpoint of $axis");
        } else {
            try {
                $step = StepAnalysis::of($log->runs("setpoint_{$axis}_dps"), $rate, $rateHz);
                $belief = Belief::in($step, self::feedForward($log, $axis), $otherMovement);
            } catch (SignalError $e) {
                $belief = Belief::none(lcfirst(rtrim($e->getMessage(), '.')));
            }
        }

        return new AxisReport(
            $axis, $step, $belief,
            self::spectrum($measuredRuns, $rateHz), self::spectrum($filteredRuns, $rateHz),
            self::filterDelay($measuredRuns, $filteredRuns, $rateHz),
        );
    }

    /** @param list<list<float>>|null $runs */
    private static function spectrum(?array $runs, float $rateHz): ?AxisSpectrum
    {
        if (null === $runs) {
            return null;
        }
        try {
            return AxisSpectrum::of($runs, $rateHz);
        } catch (SignalError) {
            // Too short for one segment: there is no spectrum, and the report shows its absence.
            return null;
        }
    }

    /**
     * @param list<list<float>>|null $measured
     * @param list<list<float>>|null $filtered
     */
    private static function filterDelay(?array $measured, ?array $filtered, float $rateHz): ?float
    {
        if (null === $measured || null === $filtered) {
            return null;
        }
        $longest = 0;
        foreach ($measured as $i => $run) {
            if (\count($run) > \count($measured[$longest])) {
                $longest = $i;
            }
        }
        $most = 32768;
        $s = Lag::between(\array_slice($measured[$longest], 0, $most), \array_slice($filtered[$longest], 0, $most), $rateHz, 0.05);

        return null === $s ? null : $s * 1e3;
    }

    private static function feedForward(FlightLog $log, string $axis): float
    {
        if (!$log->has("term_ff_$axis") || !$log->has("term_p_$axis")) {
            return 0.0;
        }
        $p = self::rms($log->runs("term_p_$axis"));

        return $p > 0 ? self::rms($log->runs("term_ff_$axis")) / $p : 0.0;
    }

    /** @param list<list<float>> $runs */
    private static function rms(array $runs): float
    {
        $sum = 0.0;
        $count = 0;
        foreach ($runs as $run) {
            foreach ($run as $v) {
                $sum += $v * $v;
            }
            $count += \count($run);
        }

        return $count > 0 ? sqrt($sum / $count) : 0.0;
    }
}
