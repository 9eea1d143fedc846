<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\Incident\Incidents;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\LogCheck\Adequacy;
use Ortholex\Core\LogCheck\SignCheck;
use Ortholex\Core\Noise\NoiseAgainst;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Noise\NotchTrack;
use Ortholex\Core\Noise\OrderLine;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\Ridges;
use Ortholex\Core\Noise\RotorSpeed;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Core\Tuning\TermVerdict;

/** Everything a log tells, axis by axis: a pure function of the log. */
final readonly class FlightAnalysis
{
    /** Raised whenever a result would change for the same log, so that stored results are not mistaken for new ones. */
    public const VERSION = 12;

    /** P is about this share of the error, where it was not logged: enough to see whether it swings, % per deg/s. */
    private const P_OF_ERROR = 0.25;

    /**
     * @param array<string, AxisReport> $axes
     * @param array<string, AxisPlant>  $plants  where the log has the terms of the command
     * @param array<string, NoiseMap>   $maps    against throttle, by axis: of the measured rate, or of the filtered if that alone is there
     * @param list<Ridge>               $ridges  of all axes
     * @param array<string, NoiseMap>   $rpmMaps the same against rotor speed, where it was logged
     * @param list<OrderLine>           $orders  climbing lines of those, by their order of the rotor speed
     * @param array<string, list<NotchTrack>>  $notches where the notches sat, by NoiseAgainst
     * @param list<SignCheck>           $signs
     * @param array<string, AxisLag>    $lags
     * @param array<string, TermVerdict> $verdicts
     * @param list<Incident>            $incidents
     * @param list<float>               $rotorHz mean speed of each motor in flight, where logged
     */
    private function __construct(
        public array $axes,
        public array $plants,
        public array $rotorHz,
        public array $maps,
        public array $ridges,
        public array $rpmMaps,
        public ?float $fullRpm,
        public array $orders,
        public array $notches,
        public array $signs,
        public array $lags,
        public array $verdicts,
        public array $incidents,
        public Adequacy $adequacy,
    ) {
    }

    /** @param bool $withPlants whether to identify the axes behind the gains too; the report does not need them */
    public static function of(FlightLog $log, bool $withPlants = true): self
    {
        $axes = $plants = $lags = $verdicts = [];
        foreach (Axis::cases() as $axis) {
            $axes[$axis->value] = AxisAnalysis::of($log, $axis);
        }
        foreach ($withPlants ? Axis::cases() : [] as $axis) {
            $plant = self::plant($log, $axis);
            if (null !== $plant) {
                $plants[$axis->value] = $plant;
            }
        }
        $throttle = self::throttle($log);
        $speed = RotorSpeed::of($log);
        $levels =
            ([] === $throttle ? [] : [NoiseAgainst::Throttle->value => $throttle]) +
            (null === $speed ? [] : [NoiseAgainst::Rpm->value => $speed->levelPct]);
        $maps = $rpmMaps = $ridges = $orders = [];
        foreach (Axis::cases() as $axis) {
            $rate = $log->rateOfRotation($axis);
            if (null === $rate) {
                $verdicts[$axis->value] = TermVerdict::none();
                continue;
            }
            $runs = $log->runs($rate);
            foreach (NoiseMap::against($runs, $levels, $log->clock->rateHz) as $against => $map) {
                if (NoiseAgainst::Throttle->value === $against) {
                    $maps[$axis->value] = $map;
                    $ridges = [...$ridges, ...Ridges::of($map, $axis)];
                } elseif (null !== $speed) {
                    $rpmMaps[$axis->value] = $map;
                    $orders = [...$orders, ...OrderLine::among(Ridges::of($map, $axis), $speed->fullRpm)];
                }
            }
            $set = Traces::setpoint($axis);
            $lag = $log->has($set) ? AxisLag::of($log->runs($set), $runs, $log->clock->rateHz) : null;
            if (null !== $lag) {
                $lags[$axis->value] = $lag;
            }
            $verdicts[$axis->value] = self::verdict($log, $axis);
        }

        return new self(
            $axes,
            $plants,
            self::rotorHz($log),
            $maps,
            $ridges,
            $rpmMaps,
            $speed?->fullRpm,
            $orders,
            NotchTrack::against($log, $levels),
            SignCheck::of($log),
            $lags,
            $verdicts,
            Incidents::of($log),
            Adequacy::of($log),
        );
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
    private static function verdict(FlightLog $log, Axis $axis): TermVerdict
    {
        $rate = $log->runs((string) $log->rateAsFlown($axis));
        $starts = array_map(static fn (Segment $s): float => $s->startS, $log->clock->segments);
        [$pName, $dName, $set] = [Traces::term('p', $axis), Traces::term('d', $axis), Traces::setpoint($axis)];
        $p = $log->has($pName) ? $log->runs($pName) : null;
        if (null === $p && $log->has($set)) {
            $p = [];
            foreach ($log->runs($set) as $r => $run) {
                $p[] = array_map(static fn (float $s, float $w): float => self::P_OF_ERROR * ($s - $w), $run, $rate[$r]);
            }
        }
        if (null === $p) {
            return TermVerdict::none();
        }
        $hasD = $log->has($dName);
        $d = $hasD ? $log->runs($dName) : array_map(static fn (array $run): array => array_fill(0, \count($run), 0.0), $rate);
        $verdict = TermVerdict::of($p, $d, $rate, $starts, $log->clock->rateHz);

        // Without D in the log a swing of P can be seen, but not that all is clean.
        return $hasD || TermState::Oscillation === $verdict->verdict ? $verdict : TermVerdict::none();
    }

    private static function plant(FlightLog $log, Axis $axis): ?AxisPlant
    {
        [$rate, $set] = [Traces::measuredRate($axis), Traces::setpoint($axis)];
        if (!$log->has($rate) || !$log->has($set) || !$log->has(Traces::term('p', $axis))) {
            return null;
        }
        $command = [];
        foreach (Traces::TERMS as $term) {
            $name = Traces::term($term, $axis);
            foreach ($log->has($name) ? $log->runs($name) : [] as $r => $run) {
                $command[$r] = isset($command[$r]) ? array_map(static fn (float $a, float $b): float => $a + $b, $command[$r], $run) : $run;
            }
        }
        try {
            return AxisPlant::identify($log->runs($set), array_values($command), $log->runs($rate), $log->clock->rateHz);
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
}
