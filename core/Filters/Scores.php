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
use Ortholex\Core\Together\Together;

/**
 * Scores many chains on one log: its rates are run through the notches sample by sample, once for each kind of notches; what is left is
 * multiplied by |H|² of the low-passes, once for each of those, and by how the craft would shake otherwise. That is the same as to run
 * each chain for itself (WhatIf). Of a long log stretches can be taken, evenly, weighed by the spectrum of all of it.
 */
final class Scores
{
    /** So many samples of each axis are run while somebody waits; or all that there are. */
    public const QUICK = 90_000;

    public const ALL = \PHP_INT_MAX;

    /** Of a longer log stretches are taken, of so much, s, of which the first of so much lets notches settle. */
    private const STRETCH_S = 1.2;

    private const LEAD_S = 0.4;

    /** What the flight has more than the stretches is told band by band, up to so many Hz: below the first nothing counts. */
    private const WEIGHED_TO_HZ = [AxisSpectrum::RESIDUAL_FROM_HZ, 25.0, 31.0, 40.0, 56.0, 80.0, 113.0, 160.0, 226.0, 320.0, 450.0];

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
     * @param array<string, LoopRatios>        $ratios by axis, where its loop is known
     * @param float                            $part   which share of the flight counts
     */
    private function __construct(
        private readonly float $loopHz,
        private readonly float $logHz,
        private readonly array $rates,
        private readonly array $rotors,
        private readonly int $lead,
        private readonly Welch $welch,
        private readonly array $weights,
        private readonly array $ratios,
        public readonly float $part,
    ) {
        $this->stepHz = $logHz / $welch->segment;
        $this->lengths = array_map(count(...), array_values($rates)[0] ?? []);
        $this->seen = DelaySeen::in($this->lengths, $logHz);
    }

    /**
     * @param int                     $atMost   samples of each axis that are run; of a longer log stretches are
     * @param array<string, Spectrum> $measured of the whole log, by axis, where it is known already
     */
    public static function of(
        FlightLog $log,
        SettingSet $base,
        ?ClosedLoop $loop = null,
        int $atMost = self::QUICK,
        array $measured = [],
    ): self {
        $logHz = $log->clock->rateHz;
        $welch = Welch::withResolution(AxisSpectrum::RESOLUTION_HZ, $logHz);
        $lengths = array_map(static fn (Segment $s): int => $s->count, $log->clock->segments);
        $whole = array_sum($lengths) <= $atMost;
        [$places, $lead] = $whole ? [self::wholly($lengths), 0] : self::stretches($lengths, $welch->segment, $logHz, $atMost);
        $rates = $weights = $rotors = $ratios = [];
        foreach (Axis::cases() as $axis) {
            $name = Traces::measuredRate($axis);
            if (!$log->has($name)) {
                continue;
            }
            $rates[$axis->value] = self::cut($log, $name, $places);
            if (!$whole && [] !== $places) {
                $all = $measured[$axis->value] ?? $welch->density($log->runs($name));
                $counts = array_map(static fn (array $one): array => \array_slice($one, $lead), $rates[$axis->value]);
                $weights[$axis->value] = self::weights($all, $welch->density($counts));
            }
            $ratios[$axis->value] = $loop?->ratios($axis, $base, $logHz / $welch->segment);
        }
        foreach ($log->places() as $motor) {
            if ($log->has("rpm_$motor")) {
                $rotors[] = array_map(WhatIf::inHz(...), self::cut($log, "rpm_$motor", $places));
            }
        }
        $part = array_sum(array_map(static fn (array $p): int => $p[2] - $lead, $places)) / max(1, array_sum($lengths));
        $ratios = array_filter($ratios);

        return new self(WhatIf::loopHz($log, $base), $logHz, $rates, $rotors, $lead, $welch, $weights, $ratios, $part);
    }

    public function hasSpeeds(): bool
    {
        return [] !== $this->rotors;
    }

    /**
     * @param list<SettingSet> $chains
     *
     * @return list<Candidate> one for each; none where the log has no rate before the filters, or is too short
     */
    public function all(array $chains, Together $together): array
    {
        $axes = array_keys($this->rates);
        try {
            /** @var array<string, array{list<float>, array<string, float|null>}> $of by axis */
            $of = $together->all(array_map(
                fn (string $axis): \Closure => fn (): array => $this->alongAxis($axis, $chains),
                array_combine($axes, $axes),
            ));
        } catch (SignalError) {
            return [];
        }
        $all = $delays = [];
        foreach ([] === $of ? [] : $chains as $i => $chain) {
            $moving = MovingNotches::of($chain, $this->loopHz);
            $key = $moving->key();
            if (!isset($delays[$key])) {
                $everywhere = 0 === $moving->peaks ? $this->seen->of($moving, $this->rotors, [], $this->lengths) : 0.0;
                $delays[$key] = array_sum(array_map(static fn (array $one): float => $one[1][$key] ?? $everywhere, $of)) / \count($of);
            }
            $power = array_sum(array_map(static fn (array $one): float => $one[0][$i], $of)) / \count($of);
            $late = RateFilters::of($chain->with(['notch.motor.orders' => '']), $this->loopHz)->ratePath->phaseDelay(WhatIf::DELAY_AT_HZ);
            $all[] = new Candidate($chain, sqrt($power), 1e3 * ($late + $delays[$key]));
        }

        return $all;
    }

    /**
     * @param list<SettingSet> $chains
     *
     * @return array{list<float>, array<string, float|null>} power above 20 Hz that each leaves, (deg/s)²; and by what their notches are
     *                                                       the delay of those, s, null where it is the same on all axes
     *
     * @throws SignalError when no stretch holds one segment
     */
    private function alongAxis(string $axis, array $chains): array
    {
        $powers = $behind = $late = [];
        $from = (int) ceil(AxisSpectrum::RESIDUAL_FROM_HZ / $this->stepHz);
        foreach ($chains as $chain) {
            $moving = MovingNotches::of($chain, $this->loopHz);
            $key = $moving->key();
            if (!isset($behind[$key])) {
                [$behind[$key], $late[$key]] = $this->behind($moving, $axis);
            }
            $density = $behind[$key];
            $shape = $this->shape($chain);
            $ratio = ($this->ratios[$axis] ?? null)?->of($chain) ?? [];
            $n = \count($density);
            $known = min($n, \count($ratio));
            $sum = 0.0;
            for ($k = $from; $k < $known; ++$k) {
                $sum += $density[$k] * $shape[$k] * $ratio[$k];
            }
            for (; $k < $n; ++$k) {
                $sum += $density[$k] * $shape[$k];
            }
            $powers[] = $sum * $this->stepHz;
        }

        return [$powers, $late];
    }

    /** @return list<float> gain in power of a chain's low-passes, by frequency */
    private function shape(SettingSet $chain): array
    {
        $fixed = RateFilters::of($chain->with(['notch.motor.orders' => '']), $this->loopHz)->ratePath;

        return $this->lowPasses[serialize($fixed->stages)] ??= array_map(function (int $k) use ($fixed): float {
            [$re, $im] = $fixed->response(min($k * $this->stepHz, $this->loopHz / 2));

            return $re * $re + $im * $im;
        }, range(0, $this->welch->segment >> 1));
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
     * @return list<array{int, int, int}> run, first sample and samples
     */
    private static function wholly(array $lengths): array
    {
        return array_map(static fn (int $r, int $n): array => [$r, 0, $n], array_keys($lengths), $lengths);
    }

    /**
     * @param list<int> $lengths of the log's runs
     *
     * @return array{list<array{int, int, int}>, int} run, first sample and samples of each stretch; and how many of these lead in
     */
    private static function stretches(array $lengths, int $segment, float $logHz, int $atMost): array
    {
        $lead = (int) ceil(self::LEAD_S * $logHz);
        $long = max((int) ceil(self::STRETCH_S * $logHz), $lead + $segment);
        $all = $some = [];
        foreach ($lengths as $r => $length) {
            for ($at = 0; $at + $long <= $length; $at += $long - $lead) {
                $all[] = [$r, $at, $long];
            }
        }
        $most = min(\count($all), max(1, intdiv($atMost, $long)));
        for ($i = 0; $i < $most; ++$i) {
            $some[] = $all[intdiv((2 * $i + 1) * \count($all), 2 * $most)];
        }

        return [$some, $lead];
    }
}
