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
    private const LOOKED_AT_HZ = 250.0;

    /**
     * Nearest the rotation itself is the measured rate: the filtered one comes later by the filters' delay.
     *
     * @param list<float> $byHand beginnings of windows that somebody left out, s
     */
    public static function of(FlightLog $log, Axis $axis, array $byHand = []): AxisReport
    {
        return self::in(AxisTraces::of($log, $axis), OutputEnds::of($log), self::motion($log), $byHand);
    }

    /**
     * The same where what it needs is there already.
     *
     * @param OutputEnds|null      $ends   of the same log
     * @param array<string, float> $motion RMS of what was asked, by axis, deg/s
     * @param list<float>          $byHand
     */
    public static function in(AxisTraces $traces, ?OutputEnds $ends, array $motion, array $byHand = []): AxisReport
    {
        $rateHz = $traces->log->clock->rateHz;
        [$step, $confidence] = self::step($traces, $byHand, $ends, $motion);

        return new AxisReport(
            $traces->axis,
            $step,
            $confidence,
            self::spectrum($traces->measured, $rateHz),
            self::spectrum($traces->filtered, $rateHz),
            self::filterDelay($traces->measured, $traces->filtered, $rateHz),
        );
    }

    /** @return array<string, float> RMS of what was asked, by axis, deg/s */
    public static function motion(FlightLog $log): array
    {
        $motion = [];
        foreach (Axis::cases() as $axis) {
            $motion[$axis->value] = $log->has(Traces::setpoint($axis)) ? self::rms($log, Traces::setpoint($axis)) : 0.0;
        }

        return $motion;
    }

    /**
     * @param list<float>          $byHand
     * @param array<string, float> $motion
     *
     * @return array{StepResult|null, Confidence}
     */
    private static function step(AxisTraces $traces, array $byHand, ?OutputEnds $ends, array $motion): array
    {
        [$log, $axis, $rate] = [$traces->log, $traces->axis, $traces->rotation()];
        if (null === $rate) {
            return [null, Confidence::none(Fact::of(ConfidenceReason::NoRate, axis: $axis))];
        }
        if (null === $traces->set) {
            return [null, Confidence::none(Fact::of(ConfidenceReason::NoSetpoint, axis: $axis))];
        }
        try {
            $starts = array_map(static fn (Segment $s): float => $s->startS, $log->clock->segments);
            $step = StepAnalysis::of($traces->set, $rate, $log->clock->rateHz, $starts, $byHand);
        } catch (NoStepResponse $e) {
            return [null, Confidence::none($e->reason)];
        }
        $others = array_map(static fn (Axis $a): float => $motion[$a->value] ?? 0.0, $axis->others());

        return [
            $step,
            Confidence::in(
                $step,
                self::feedForward($log, $axis),
                max([0.0, ...$others]),
                self::dSpread($traces),
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
        $size = self::rms($log, $p);

        return $size > 0 ? self::rms($log, $ff) / $size : 0.0;
    }

    /** Measured; where the log does not tell, as its settings would have it. */
    private static function dSpread(AxisTraces $traces): ?float
    {
        [$log, $axis] = [$traces->log, $traces->axis];
        $d = (float) ($log->setting("gain.{$axis->value}.d") ?? 0);
        $added = (float) ($log->setting("gain.{$axis->value}.added_d") ?? 0);

        return Steadiness::ofD($log, $axis, $traces->asFlown()) ?? ($d > 0 && $added > 0 ? $added / $d : null);
    }

    /** How large a trace is; some hundreds of its samples a second say it. */
    private static function rms(FlightLog $log, string $name): float
    {
        $values = $log->column($name)->each(max(1, (int) round($log->clock->rateHz / self::LOOKED_AT_HZ)));
        $sum = 0.0;
        foreach ($values as $v) {
            $sum += $v * $v;
        }
        $count = \count($values);

        return $count > 0 ? sqrt($sum / $count) : 0.0;
    }
}
