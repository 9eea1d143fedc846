<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\Incident\Incidents;
use Ortholex\Core\Incident\Motion\Motion;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\LogCheck\Adequacy;
use Ortholex\Core\LogCheck\PlacesCheck;
use Ortholex\Core\LogCheck\SignCheck;
use Ortholex\Core\Noise\NoiseAgainst;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Noise\NotchTrack;
use Ortholex\Core\Noise\OrderLine;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\Ridges;
use Ortholex\Core\Noise\RotorSpeed;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Step\Confidence\Confidence;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\OutputEnds;
use Ortholex\Core\Together\OneByOne;
use Ortholex\Core\Together\Together;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Core\Tuning\TermVerdict;

/**
 * Everything a log tells, axis by axis: a pure function of the log.
 *
 * @phpstan-type Seen array{axes: array<string, AxisReport>, maps: array<string, NoiseMap>, ridges: list<Ridge>,
 *     rpmMaps: array<string, NoiseMap>, fullRpm: float|null, rotorHz: list<float>, orders: list<OrderLine>,
 *     notches: array<string, list<NotchTrack>>, lags: array<string, AxisLag>}
 * @phpstan-type Moved array{verdicts: array<string, TermVerdict>, plants: array<string, AxisPlant>, signs: list<SignCheck>,
 *     incidents: list<Incident>, places: PlacesCheck|null, adequacy: Adequacy}
 */
final readonly class FlightAnalysis
{
    /** Raised whenever a result would change for the same log, so that stored results are not mistaken for new ones. */
    public const VERSION = 23;

    /** Steps, noise, lag and filters of a longer log are taken from stretches of it: five minutes at 8 kHz, twenty at 2 kHz. */
    public const MOST_SAMPLES = 2_400_000;

    /** Traces that say what is looked for here. */
    private const LOOKED_AT = '~^(throttle|setpoint|rate|term_(p|d|ff)|output|rpm|tracking_notch|battery)_~';

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
        public ?PlacesCheck $places,
    ) {
    }

    /**
     * @param bool          $withPlants whether to identify the axes behind the gains too; the report does not need them
     * @param Together|null $together   how its two halves are reckoned; one by one when null
     */
    public static function of(FlightLog $log, bool $withPlants = true, ?Together $together = null): self
    {
        if ($log->clock->rateHz < Adequacy::LEAST_RATE_HZ) {
            return self::tellsNothing($log);
        }
        $some = $log->thinned(self::MOST_SAMPLES);
        $ends = OutputEnds::of($some);
        /** @var array{axes: Seen, rest: Moved} $done */
        $done = ($together ?? new OneByOne())->all([
            'axes' => static fn (): array => self::axes($some, $ends),
            'rest' => static fn (): array => [
                'verdicts' => self::verdicts($log, $ends->full ?? 0.0),
                'plants' => $withPlants ? self::plants($some) : [],
                ...self::moved($log, $some),
            ],
        ]);
        ['axes' => $seen, 'rest' => $rest] = $done;

        return new self(
            $seen['axes'],
            $rest['plants'],
            $seen['rotorHz'],
            $seen['maps'],
            OwnSwing::named($seen['ridges'], $rest['verdicts'], $seen['axes']),
            $seen['rpmMaps'],
            $seen['fullRpm'],
            $seen['orders'],
            $seen['notches'],
            $rest['signs'],
            $seen['lags'],
            $rest['verdicts'],
            $rest['incidents'],
            $rest['adequacy'],
            $rest['places'],
        );
    }

    /** Whether a trace has a say in any of it but the plants, which look at I as well. */
    public static function looksAt(string $trace): bool
    {
        return 1 === preg_match(self::LOOKED_AT, $trace);
    }

    /** Of a log that was sampled more slowly than anything that is looked for. */
    private static function tellsNothing(FlightLog $log): self
    {
        $axes = $verdicts = [];
        foreach (Axis::cases() as $axis) {
            $why = Confidence::none(Fact::of(ConfidenceReason::FarTooSlow, rate_hz: $log->clock->rateHz));
            $axes[$axis->value] = new AxisReport($axis, null, $why, null, null, null);
            $verdicts[$axis->value] = TermVerdict::none();
        }

        return new self($axes, [], [], [], [], [], null, [], [], [], [], $verdicts, [], Adequacy::of($log), null);
    }

    /** @return array<string, AxisPlant> of the axes that the flight tells of; the sheets that would predict say where it does not */
    private static function plants(FlightLog $log): array
    {
        $plants = [];
        foreach (Axis::cases() as $axis) {
            try {
                $plants[$axis->value] = AxisPlant::in($log, $axis);
            } catch (SignalError) {
                continue;
            }
        }

        return array_filter($plants);
    }

    /** @return array<string, TermVerdict> by axis */
    private static function verdicts(FlightLog $log, float $full): array
    {
        $verdicts = [];
        foreach (Axis::cases() as $axis) {
            $verdicts[$axis->value] = null === $log->rateOfRotation($axis) ? TermVerdict::none() : self::verdict($log, $axis, $full);
        }

        return $verdicts;
    }

    /**
     * Steps, spectra, noise and lag: what is told of the traces of each axis at the rate of the log, axis by axis, so that each is unpacked
     * once.
     *
     * @return Seen
     */
    private static function axes(FlightLog $log, ?OutputEnds $ends): array
    {
        $motion = AxisAnalysis::motion($log);
        $factor = NoiseMap::levelFactor($log->clock->rateHz);
        $throttle = self::throttle($log, $factor);
        $rotors = RotorSpeed::logged($log, $factor);
        $speed = RotorSpeed::of($rotors);
        $levels =
            ([] === $throttle ? [] : [NoiseAgainst::Throttle->value => $throttle]) +
            (null === $speed ? [] : [NoiseAgainst::Rpm->value => $speed->levelPct]);
        $notches = NotchTrack::against($log, $levels, $rotors, $factor);
        $bins = array_map(static fn (array $level): array => NoiseMap::bins($level, $log->clock->rateHz, $factor), $levels);
        [$fullRpm, $rotorHz] = [$speed?->fullRpm, $speed->meanHz ?? []];
        // Of a long log each is much.
        unset($throttle, $rotors, $speed, $levels);
        $axes = $maps = $rpmMaps = $ridges = $orders = $lags = [];
        foreach (Axis::cases() as $axis) {
            $traces = AxisTraces::of($log, $axis);
            $axes[$axis->value] = AxisAnalysis::in($traces, $ends, $motion);
            $runs = $traces->rotation();
            if (null === $runs) {
                continue;
            }
            foreach (NoiseMap::against($runs, $bins, $log->clock->rateHz) as $against => $map) {
                if (NoiseAgainst::Throttle->value === $against) {
                    $maps[$axis->value] = $map;
                    $ridges = [...$ridges, ...Ridges::of($map, $axis)];
                } elseif (null !== $fullRpm) {
                    $rpmMaps[$axis->value] = $map;
                    $orders = [...$orders, ...OrderLine::among(Ridges::of($map, $axis), $fullRpm)];
                }
            }
            $lag = null === $traces->set ? null : AxisLag::of($traces->set, $runs, $log->clock->rateHz);
            if (null !== $lag) {
                $lags[$axis->value] = $lag;
            }
        }

        return [
            'axes' => $axes,
            'maps' => $maps,
            'ridges' => $ridges,
            'rpmMaps' => $rpmMaps,
            'fullRpm' => $fullRpm,
            'rotorHz' => $rotorHz,
            'orders' => $orders,
            'notches' => $notches,
            'lags' => $lags,
        ];
    }

    /** @return array{signs: list<SignCheck>, incidents: list<Incident>, places: PlacesCheck|null, adequacy: Adequacy} */
    private static function moved(FlightLog $log, FlightLog $some): array
    {
        $motion = Motion::of($log);

        return [
            'signs' => SignCheck::of($some, $motion),
            'incidents' => Incidents::of($log, $motion),
            'places' => PlacesCheck::of($motion->model, $motion->places),
            'adequacy' => Adequacy::of($log, $some),
        ];
    }

    /**
     * @param int $factor samples averaged into one
     *
     * @return list<list<float>> throttle by run, %; where it was not logged, the mean of the outputs stands for it
     */
    public static function throttle(FlightLog $log, int $factor = 1): array
    {
        if ($log->has('throttle_pct')) {
            return $log->decimatedRuns('throttle_pct', $factor);
        }
        $sum = [];
        $places = $log->places();
        foreach ($places as $place) {
            foreach ($log->decimatedRuns("output_{$place}_pct", $factor) as $r => $run) {
                $sum[$r] ??= [];
                foreach ($run as $i => $v) {
                    $sum[$r][$i] = ($sum[$r][$i] ?? 0.0) + $v / \count($places);
                }
            }
        }

        return array_values(array_map('array_values', $sum));
    }

    /** From the logged terms; where they are missing, from what they are made of. */
    private static function verdict(FlightLog $log, Axis $axis, float $full): TermVerdict
    {
        $factor = TermVerdict::factor($log->clock->rateHz);
        $runs = static fn (string $name): array => $log->decimatedRuns($name, $factor);
        $rate = $runs((string) $log->rateAsFlown($axis));
        $starts = array_map(static fn (Segment $s): float => $s->startS, $log->clock->segments);
        [$pName, $dName, $set] = [Traces::term('p', $axis), Traces::term('d', $axis), Traces::setpoint($axis)];
        $asked = $log->has($set) ? $runs($set) : [];
        $p = $log->has($pName) ? $runs($pName) : null;
        if (null === $p && [] !== $asked) {
            $p = [];
            foreach ($asked as $r => $run) {
                $p[] = array_map(static fn (float $s, float $w): float => self::P_OF_ERROR * ($s - $w), $run, $rate[$r]);
            }
        }
        if (null === $p) {
            return TermVerdict::none();
        }
        $hasD = $log->has($dName);
        $d = $hasD ? $runs($dName) : array_map(static fn (array $run): array => array_fill(0, \count($run), 0.0), $rate);
        $verdict = TermVerdict::of($p, $d, $rate, $starts, $log->clock->rateHz / $factor, $asked, $full);

        // Without D in the log a swing of P can be seen, but not that all is clean.
        return $hasD || TermState::Oscillation === $verdict->verdict ? $verdict : TermVerdict::none();
    }
}
