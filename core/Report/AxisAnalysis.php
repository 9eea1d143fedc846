<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\LogCheck\Steadiness;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Noise\FilterDelay;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Step\Confidence\Confidence;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\OutputEnds;
use Ortholex\Core\Step\NoStepResponse;
use Ortholex\Core\Step\StepAnalysis;
use Ortholex\Core\Step\StepResult;

/** Step response and spectra of one axis. */
final readonly class AxisAnalysis
{
    /**
     * Nearest the rotation itself is the measured rate: the filtered one comes later by the filters' delay.
     *
     * @param list<float>     $byHand beginnings of windows that somebody left out, s
     * @param OutputEnds|null $ends   of the same log, where they were counted already
     */
    public static function of(FlightLog $log, Axis $axis, array $byHand = [], ?OutputEnds $ends = null): AxisReport
    {
        $rateHz = $log->clock->rateHz;
        $measured = $log->has(Traces::measuredRate($axis)) ? $log->runs(Traces::measuredRate($axis)) : null;
        $filtered = $log->has(Traces::filteredRate($axis)) ? $log->runs(Traces::filteredRate($axis)) : null;
        $before = self::spectrum($measured, $rateHz);
        $behind = self::spectrum($filtered, $rateHz);
        $delay = self::filterDelay($measured, $filtered, $rateHz);
        $rate = $measured ?? $filtered;
        // Of a long log each is much: what is not asked any more goes.
        unset($measured, $filtered);
        [$step, $confidence] = self::step($log, $axis, $rate, $byHand, $ends ?? OutputEnds::of($log));

        return new AxisReport($axis, $step, $confidence, $before, $behind, $delay);
    }

    /**
     * @param list<list<float>>|null $rate
     * @param list<float>            $byHand
     *
     * @return array{StepResult|null, Confidence}
     */
    private static function step(FlightLog $log, Axis $axis, ?array $rate, array $byHand, ?OutputEnds $ends): array
    {
        $set = Traces::setpoint($axis);
        if (null === $rate) {
            return [null, Confidence::none(Fact::of(ConfidenceReason::NoRate, axis: $axis))];
        }
        if (!$log->has($set)) {
            return [null, Confidence::none(Fact::of(ConfidenceReason::NoSetpoint, axis: $axis))];
        }
        try {
            $starts = array_map(static fn (Segment $s): float => $s->startS, $log->clock->segments);
            $step = StepAnalysis::of($log->runs($set), $rate, $log->clock->rateHz, $starts, $byHand);
        } catch (NoStepResponse $e) {
            return [null, Confidence::none($e->reason)];
        }
        $others = array_map(static fn (Axis $a): float => self::movement($log, $a), $axis->others());

        return [
            $step,
            Confidence::in(
                $step,
                self::feedForward($log, $axis),
                max([0.0, ...$others]),
                self::dSpread($log, $axis),
                self::isUnseen($log, $axis),
                $ends?->over($step),
            ),
        ];
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
        $s = FilterDelay::between($measured[$longest], $filtered[$longest], $rateHz);

        return null === $s ? null : $s * 1e3;
    }

    /** Whether feed-forward or added D may have flown, and neither a trace nor the settings in the log would betray it. */
    private static function isUnseen(FlightLog $log, Axis $axis): bool
    {
        $mayHave = static function (string $trace, string $setting) use ($log): bool {
            $set = $log->setting($setting);

            return !$log->has($trace) && (null === $set || (float) $set > 0);
        };

        return $mayHave(Traces::term('ff', $axis), "gain.{$axis->value}.ff")
            || $mayHave(Traces::term('d', $axis), "gain.{$axis->value}.added_d");
    }

    private static function feedForward(FlightLog $log, Axis $axis): float
    {
        [$ff, $p] = [Traces::term('ff', $axis), Traces::term('p', $axis)];
        if (!$log->has($ff) || !$log->has($p)) {
            return 0.0;
        }
        $size = self::rms($log->runs($p));

        return $size > 0 ? self::rms($log->runs($ff)) / $size : 0.0;
    }

    /** Measured; where the log does not tell, as its settings would have it. */
    private static function dSpread(FlightLog $log, Axis $axis): ?float
    {
        $d = (float) ($log->setting("gain.{$axis->value}.d") ?? 0);
        $added = (float) ($log->setting("gain.{$axis->value}.added_d") ?? 0);

        return Steadiness::ofD($log, $axis) ?? ($d > 0 && $added > 0 ? $added / $d : null);
    }

    private static function movement(FlightLog $log, Axis $axis): float
    {
        return $log->has(Traces::setpoint($axis)) ? self::rms($log->runs(Traces::setpoint($axis))) : 0.0;
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
