<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Signal\Statistics;

/** Everything a log tells, axis by axis: a pure function of the log. */
final readonly class FlightAnalysis
{
    /** Raised whenever a result would change for the same log, so that stored results are not mistaken for new ones. */
    public const VERSION = 9;

    /**
     * @param array<string, AxisReport> $axes
     * @param array<string, AxisPlant>  $plants  where the log has the terms of the command
     * @param array<string, NoiseMap>   $maps    of the measured rate (the filtered one where that alone was logged), by axis, against throttle
     * @param list<Ridge>               $ridges  of all axes
     * @param array<string, NoiseMap>   $rpmMaps the same against rotor speed, where it was logged
     * @param list<OrderLine>           $orders  climbing lines of those, by their order of the rotor speed
     * @param array<'throttle'|'rpm', list<NotchTrack>> $notches where the notches sat, by what the map is drawn against
     * @param list<SignCheck>           $signs
     * @param array<string, AxisLag>    $lags
     * @param array<string, Verdict>    $verdicts
     * @param list<Incident>            $incidents
     * @param list<float>               $rotorHz mean speed of each motor in flight, where logged
     */
    private function __construct(public array $axes, public array $plants, public array $rotorHz, public array $maps, public array $ridges, public array $rpmMaps, public ?float $fullRpm, public array $orders, public array $notches, public array $signs, public array $lags, public array $verdicts, public array $incidents, public Adequacy $adequacy)
    {
    }

    /** @param bool $withPlants whether to identify the axes behind the gains too; the report does not need them */
    public static function of(FlightLog $log, bool $withPlants = true): self
    {
        $axes = [];
        $movement = [];
        foreach (Traces::AXES as $axis) {
            $movement[$axis] = $log->has("setpoint_{$axis}_dps") ? self::rms($log->runs("setpoint_{$axis}_dps")) : 0.0;
        }
        foreach (Traces::AXES as $axis) {
            $others = $movement;
            unset($others[$axis]);
            $axes[$axis] = self::axis($log, $axis, max([0.0, ...array_values($others)]));
        }

        $plants = [];
        foreach ($withPlants ? Traces::AXES : [] as $axis) {
            $plant = self::plant($log, $axis);
            if (null !== $plant) {
                $plants[$axis] = $plant;
            }
        }

        $maps = $rpmMaps = $lags = $verdicts = [];
        $throttle = self::throttle($log);
        $speed = RotorSpeed::of($log);
        $levels = ([] === $throttle ? [] : ['throttle' => $throttle]) + (null === $speed ? [] : ['rpm' => $speed->levelPct]);
        $ridges = $orders = [];
        foreach (Traces::AXES as $axis) {
            $rate = $log->has("rate_measured_{$axis}_dps") ? "rate_measured_{$axis}_dps" : "rate_filtered_{$axis}_dps";
            if (!$log->has($rate)) {
                $verdicts[$axis] = Verdict::none();
                continue;
            }
            $runs = $log->runs($rate);
            foreach (NoiseMap::against($runs, $levels, $log->clock->rateHz) as $against => $map) {
                if ('throttle' === $against) {
                    $maps[$axis] = $map;
                    $ridges = [...$ridges, ...Ridges::of($map, $axis)];
                } elseif (null !== $speed) {
                    $rpmMaps[$axis] = $map;
                    $orders = [...$orders, ...OrderLine::among(Ridges::of($map, $axis), $speed->fullRpm)];
                }
            }
            $lag = $log->has("setpoint_{$axis}_dps") ? AxisLag::of($log->runs("setpoint_{$axis}_dps"), $runs, $log->clock->rateHz) : null;
            if (null !== $lag) {
                $lags[$axis] = $lag;
            }
            $verdicts[$axis] = self::verdict($log, $axis);
        }

        return new self($axes, $plants, self::rotorHz($log), $maps, $ridges, $rpmMaps, $speed?->fullRpm, $orders, NotchTrack::against($log, $levels), SignCheck::of($log), $lags, $verdicts, Incidents::of($log), Adequacy::of($log));
    }

    /**
     * One axis' step response and spectra alone, with some of its windows struck out.
     *
     * @param list<float> $struck beginnings of windows, s
     */
    public static function without(FlightLog $log, string $axis, array $struck): AxisReport
    {
        $others = array_diff(Traces::AXES, [$axis]);

        return self::axis($log, $axis, max([0.0, ...array_map(static fn (string $o): float => $log->has("setpoint_{$o}_dps") ? self::rms($log->runs("setpoint_{$o}_dps")) : 0.0, array_values($others))]), $struck);
    }

    /** @return list<list<float>> throttle by run, %; where it was not logged, the mean of the outputs stands for it */
    private static function throttle(FlightLog $log): array
    {
        if ($log->has('throttle_pct')) {
            return $log->runs('throttle_pct');
        }
        $sum = [];
        $places = $log->places();
        foreach ($places as $place) {
            foreach ($log->runs("output_{$place}_pct") as $r => $run) {
                foreach ($run as $i => $v) {
                    $sum[$r][$i] = ($sum[$r][$i] ?? 0.0) + $v / \count($places);
                }
            }
        }

        return array_values(array_map('array_values', $sum));
    }

    /** From the logged terms; where they are missing, from what they are made of. */
    private static function verdict(FlightLog $log, string $axis): Verdict
    {
        $filtered = $log->has("rate_filtered_{$axis}_dps") ? "rate_filtered_{$axis}_dps" : "rate_measured_{$axis}_dps";
        $rate = $log->runs($filtered);
        $starts = array_map(static fn (Segment $s): float => $s->startS, $log->clock->segments);
        $p = $log->has("term_p_$axis") ? $log->runs("term_p_$axis") : null;
        if (null === $p && $log->has("setpoint_{$axis}_dps")) {
            $p = [];
            foreach ($log->runs("setpoint_{$axis}_dps") as $r => $run) {
                $p[] = array_map(static fn (float $s, float $w): float => 0.25 * ($s - $w), $run, $rate[$r]);
            }
        }
        if (null === $p) {
            return Verdict::none();
        }
        $hasD = $log->has("term_d_$axis");
        $d = $hasD ? $log->runs("term_d_$axis") : array_map(static fn (array $run): array => array_fill(0, \count($run), 0.0), $rate);
        $verdict = Verdict::of($p, $d, $rate, $starts, $log->clock->rateHz);

        // Without D in the log a swing of P can be seen, but not that all is clean.
        return $hasD || Verdict::OSCILLATION === $verdict->verdict ? $verdict : Verdict::none();
    }

    /** @param list<float> $struck */
    private static function axis(FlightLog $log, string $axis, float $otherMovement, array $struck = []): AxisReport
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
                $starts = array_map(static fn (Segment $s): float => $s->startS, $log->clock->segments);
                $step = StepAnalysis::of($log->runs("setpoint_{$axis}_dps"), $rate, $rateHz, $starts, $struck);
                $belief = Belief::in($step, self::feedForward($log, $axis), $otherMovement, self::dSpread($log, $axis));
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

    private static function plant(FlightLog $log, string $axis): ?AxisPlant
    {
        $rate = "rate_measured_{$axis}_dps";
        if (!$log->has($rate) || !$log->has("setpoint_{$axis}_dps") || !$log->has("term_p_$axis")) {
            return null;
        }
        $command = null;
        foreach (['p', 'i', 'd', 'ff'] as $term) {
            if ($log->has("term_{$term}_$axis")) {
                foreach ($log->runs("term_{$term}_$axis") as $r => $run) {
                    $command[$r] = isset($command[$r]) ? array_map(static fn (float $a, float $b): float => $a + $b, $command[$r], $run) : $run;
                }
            }
        }
        try {
            return null === $command ? null : AxisPlant::identify($log->runs("setpoint_{$axis}_dps"), array_values($command), $log->runs($rate), $log->clock->rateHz);
        } catch (SignalError) {
            // The flight does not tell; the sheets that would predict say so.
            return null;
        }
    }

    /** @return list<float> */
    private static function rotorHz(FlightLog $log): array
    {
        $hz = [];
        foreach ($log->places() as $place) {
            if ($log->has("rpm_$place")) {
                $hz[] = Statistics::mean($log->trace("rpm_$place")) / 60;
            }
        }

        return $hz;
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
        $most = 8192;
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

    /** Measured; where the log does not tell, as its settings would have it. */
    private static function dSpread(FlightLog $log, string $axis): ?float
    {
        $measured = Steadiness::ofD($log, $axis);
        $d = (float) ($log->setting("gain.$axis.d") ?? 0);
        $added = (float) ($log->setting("gain.$axis.added_d") ?? 0);

        return $measured ?? ($d > 0 && $added > 0 ? $added / $d : null);
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
