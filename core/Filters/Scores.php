<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Signal\Spectrum;
use Ortholex\Core\Signal\Welch;
use Ortholex\Core\Together\OneByOne;
use Ortholex\Core\Together\Together;

/**
 * Scores many chains on one log: its rates are run through the notches sample by sample, once for each kind of notches; what is left is
 * multiplied by |H|² of the low-passes, once for each of those. Of a long log stretches are taken, evenly.
 */
final class Scores
{
    /** So many samples of each axis tell the flight, in stretches of so much, s, of which the first of so much lets notches settle. */
    private const MOST_SAMPLES = 24_000;

    /** How loud the flight is without any notch is told by more of it, which costs little; band by band, up to so many Hz. */
    private const MOST_WEIGHED = 72_000;

    private const WEIGHED_TO_HZ = [40.0, 80.0, 160.0, 320.0];
    private const STRETCH_S = 1.2;
    private const LEAD_S = 0.4;

    /** @var array<string, list<float>> mean (deg/s)²/Hz over the axes, behind the notches, by their settings */
    private array $behind = [];

    /** @var array<string, float> their delay, s */
    private array $delay = [];

    /** @var array<string, list<list<float>>> an axis behind motor notches, by axis and what these are, then stretch */
    private array $notched = [];

    /** @var array<string, list<float>> gain in power of the low-passes, by frequency */
    private array $lowPasses = [];

    private readonly float $stepHz;
    private readonly DelaySeen $seen;

    /** @var list<int> */
    private readonly array $lengths;

    /**
     * @param array<string, list<list<float>>> $rates  by axis and stretch, deg/s
     * @param list<list<list<float>>>          $rotors by motor and stretch, Hz
     * @param int                              $lead   samples of each stretch that do not count
     * @param array<string, list<float>>       $weights by axis: what the flight has more than the stretches, in power, by frequency
     */
    private function __construct(
        private readonly float $loopHz,
        private readonly float $logHz,
        private readonly array $rates,
        private readonly array $rotors,
        private readonly int $lead,
        private readonly Welch $welch,
        private readonly array $weights,
    ) {
        $this->stepHz = $logHz / $welch->segment;
        $this->lengths = array_map(count(...), array_values($rates)[0] ?? []);
        $this->seen = DelaySeen::in($this->lengths, $logHz);
    }

    public static function of(FlightLog $log, SettingSet $base): self
    {
        $logHz = $log->clock->rateHz;
        $welch = Welch::withResolution(AxisSpectrum::RESOLUTION_HZ, $logHz);
        $lengths = array_map(static fn (Segment $s): int => $s->count, $log->clock->segments);
        [$places, $lead, $around] = self::stretches($lengths, $welch->segment, $logHz);
        $rates = $weights = $rotors = [];
        foreach (Axis::cases() as $axis) {
            $name = Traces::measuredRate($axis);
            if (!$log->has($name)) {
                continue;
            }
            $rates[$axis->value] = self::cut($log, $name, $places);
            if ([] !== $around) {
                $weights[$axis->value] = self::weights(
                    $welch->density(self::cut($log, $name, $around)),
                    $welch->density(array_map(static fn (array $one): array => \array_slice($one, $lead), $rates[$axis->value])),
                );
            }
        }
        foreach ($log->places() as $motor) {
            if ($log->has("rpm_$motor")) {
                $rotors[] = array_map(WhatIf::inHz(...), self::cut($log, "rpm_$motor", $places));
            }
        }

        return new self(WhatIf::loopHz($log, $base), $logHz, $rates, $rotors, $lead, $welch, $weights);
    }

    public function hasSpeeds(): bool
    {
        return [] !== $this->rotors;
    }

    /** @return Candidate|null null where the log has no rate before the filters, or is too short */
    public function score(SettingSet $chain): ?Candidate
    {
        $moving = MovingNotches::of($chain, $this->loopHz);
        $key = $moving->key();
        if (!isset($this->behind[$key])) {
            $this->prepare([$chain], new OneByOne());
        }
        $behind = $this->behind[$key] ?? [];
        $fixed = RateFilters::of($chain->with(['notch.motor.orders' => '']), $this->loopHz)->ratePath;
        $shape = $this->lowPasses[serialize($fixed->stages)] ??= array_map(function (int $k) use ($fixed): float {
            [$re, $im] = $fixed->response(min($k * $this->stepHz, $this->loopHz / 2));

            return $re * $re + $im * $im;
        }, range(0, $this->welch->segment >> 1));
        $sum = 0.0;
        for ($k = (int) ceil(AxisSpectrum::RESIDUAL_FROM_HZ / $this->stepHz), $n = \count($behind); $k < $n; ++$k) {
            $sum += $behind[$k] * $shape[$k];
        }

        return [] === $behind
            ? null
            : new Candidate($chain, sqrt($sum * $this->stepHz), 1e3 * ($fixed->phaseDelay(WhatIf::DELAY_AT_HZ) + $this->delay[$key]));
    }

    /**
     * Reckons what these chains share, the axes side by side.
     *
     * @param list<SettingSet> $chains
     */
    public function prepare(array $chains, Together $together): void
    {
        $kinds = [];
        foreach ($chains as $chain) {
            $moving = MovingNotches::of($chain, $this->loopHz);
            $kinds[$moving->key()] ??= $moving;
        }
        try {
            /** @var array<string, array<string, array{list<float>, float|null}>> $of by axis, then key */
            $of = $together->all(
                array_map(
                    fn (string $axis): \Closure => fn (): array => array_map(
                        fn (MovingNotches $moving): array => $this->behind($moving, $axis),
                        $kinds,
                    ),
                    array_combine(array_keys($this->rates), array_keys($this->rates)),
                ),
            );
        } catch (SignalError) {
            return;
        }
        foreach ($kinds as $key => $moving) {
            $sum = [];
            $everywhere = 0 === $moving->peaks ? $this->seen->of($moving, $this->rotors, [], $this->lengths) : 0.0;
            $delay = 0.0;
            foreach ($of as $axis) {
                $delay += ($axis[$key][1] ?? $everywhere) / \count($of);
                foreach ($axis[$key][0] as $k => $v) {
                    $sum[$k] = ($sum[$k] ?? 0.0) + $v / \count($of);
                }
            }
            $this->behind[$key] = array_values($sum);
            $this->delay[$key] = $delay;
        }
    }

    /**
     * @return array{list<float>, float|null} (deg/s)²/Hz of an axis behind these notches; and their delay, s, null where it is the same
     *                                        on all axes
     *
     * @throws SignalError when no stretch holds one segment
     */
    private function behind(MovingNotches $moving, string $axis): array
    {
        $left = $at = [];
        foreach ($this->behindMotors($moving, $moving->orders, $axis) as $run) {
            [$rate, $at[]] = $moving->tracked($run, $this->logHz);
            $left[] = $this->lead > 0 ? \array_slice($rate, $this->lead) : $rate;
        }
        $density = $this->welch->density($left)->density;
        if (isset($this->weights[$axis])) {
            $density = array_map(static fn (float $d, float $weight): float => $d * $weight, $density, $this->weights[$axis]);
        }

        return [$density, 0 === $moving->peaks ? null : $this->seen->of($moving, $this->rotors, $at, $this->lengths)];
    }

    /**
     * @param list<int> $orders
     *
     * @return list<list<float>>
     */
    private function behindMotors(MovingNotches $moving, array $orders, string $axis): array
    {
        if ([] === $orders || !$this->hasSpeeds()) {
            return $this->rates[$axis];
        }
        $key = "$axis ".$moving->key($orders);
        if (!isset($this->notched[$key])) {
            $last = array_pop($orders);
            $out = [];
            foreach ($this->behindMotors($moving, $orders, $axis) as $r => $run) {
                $out[] = $moving->atMotors($run, array_column($this->rotors, $r), [$last], $this->logHz);
            }
            $this->notched[$key] = $out;
        }

        return $this->notched[$key];
    }

    /**
     * @param list<array{int, int, int}> $places
     *
     * @return list<list<float>>
     */
    private static function cut(FlightLog $log, string $name, array $places): array
    {
        $column = $log->column($name);
        $segments = $log->clock->segments;

        return array_map(static fn (array $p): array => $column->values($segments[$p[0]]->first + $p[1], $p[2]), $places);
    }

    /**
     * In wide bands: a line that moves may by chance not be in the stretches where it is in the flight.
     *
     * @return list<float> by frequency
     */
    private static function weights(Spectrum $all, Spectrum $some): array
    {
        $weights = [];
        $bins = \count($all->density);
        $from = 0;
        foreach ([...self::WEIGHED_TO_HZ, \INF] as $to) {
            $end = (int) min($bins, ceil($to / $all->stepHz));
            $there = array_sum(\array_slice($some->density, $from, $end - $from));
            $weight = $there > 0 ? array_sum(\array_slice($all->density, $from, $end - $from)) / $there : 1.0;
            for (; $from < $end; ++$from) {
                $weights[] = $weight;
            }
        }

        return $weights;
    }

    /**
     * @param list<int> $lengths of the log's runs
     *
     * @return array{list<array{int, int, int}>, int, list<array{int, int, int}>} run, first sample and samples of each stretch; how
     *                                                many of these lead in; and more such, by which they are weighed
     */
    private static function stretches(array $lengths, int $segment, float $logHz): array
    {
        if (array_sum($lengths) <= self::MOST_SAMPLES) {
            return [array_map(static fn (int $r, int $n): array => [$r, 0, $n], array_keys($lengths), $lengths), 0, []];
        }
        $lead = (int) ceil(self::LEAD_S * $logHz);
        $long = max((int) ceil(self::STRETCH_S * $logHz), $lead + $segment);
        $all = [];
        foreach ($lengths as $r => $length) {
            for ($at = 0; $at + $long <= $length; $at += $long - $lead) {
                $all[] = [$r, $at, $long];
            }
        }
        $most = min(\count($all), max(1, intdiv(self::MOST_SAMPLES, $long)));
        $some = $around = [];
        for ($i = 0; $i < $most; ++$i) {
            $some[] = $all[intdiv((2 * $i + 1) * \count($all), 2 * $most)];
        }
        $wide = min(\count($all), max(1, intdiv(self::MOST_WEIGHED, $long)));
        for ($i = 0; $i < $wide; ++$i) {
            $around[] = $all[intdiv((2 * $i + 1) * \count($all), 2 * $wide)];
        }

        return [$some, $lead, $around];
    }
}
