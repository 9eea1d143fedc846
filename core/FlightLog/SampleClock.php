<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\Signal\Statistics;

/**
 * What the time stamps of a log say: sample rate, gap-free segments, and how each kept row falls on the grid.
 *
 * The rate is samples over duration in gap-free runs, so stamps rounded coarser than the period do no harm.
 * Up to five missing samples are bridged by straight lines; a longer pause starts a new segment.
 */
final readonly class SampleClock
{
    private const MOST_BRIDGED = 5;

    /** A jump back that lasts this many rows is a clock that was restarted, not a bad stamp. */
    private const RESTART_ROWS = 50;

    /**
     * @param list<Segment>                                              $segments
     * @param list<TimeFault>                                            $faults
     * @param list<array{rows: list<int>, missing: array<int, int>}>     $plan     per segment: the source rows in order, and after which of them how many samples are missing
     */
    private function __construct(
        public float $rateHz,
        public int $samples,
        public array $segments,
        public array $faults,
        private array $plan,
    ) {
    }

    /**
     * @param list<float>     $times   seconds, in file order
     * @param array<int, int> $leftOut row => how many unreadable rows stood right before it, which explain a hole there
     *
     * @throws LogError when fewer than two distinct times are there
     */
    public static function fromTimes(array $times, array $leftOut = []): self
    {
        $faults = [];
        [$runs, $faults] = self::forwardRuns($times);
        $positive = [];
        foreach ($runs as $run) {
            for ($i = 1, $n = \count($run); $i < $n; ++$i) {
                $d = $times[$run[$i]] - $times[$run[$i - 1]];
                if ($d > 0) {
                    $positive[] = $d;
                }
            }
        }
        if ([] === $positive) {
            throw LogError::of('The time column never moves forward, so no sample rate can be found.');
        }
        $coarse = Statistics::median($positive);
        $dt = self::period($times, $runs, 2.5 * $coarse);
        $quantum = self::quantum($times, $positive, $dt);
        // Second look with the true period: short gaps no longer dilute it.
        $dt = self::period($times, $runs, 1.5 * $dt + $quantum);

        $segments = $plan = [];
        $sample = 0;
        $shift = 0.0;
        $lastEnd = -\INF;
        foreach ($runs as $run) {
            $parts = [];
            $rows = [$run[0]];
            $missing = [];
            for ($i = 1, $n = \count($run); $i < $n; ++$i) {
                $d = $times[$run[$i]] - $times[$run[$i - 1]];
                if (0.0 === $d && $quantum < 0.5 * $dt) {
                    $faults[] = new TimeFault('repeat', $times[$run[$i]], 0.0, $run[$i]);
                    continue;
                }
                if ($d > 1.5 * $dt + $quantum * 0.999) {
                    $lost = (int) round($d / $dt) - 1;
                    $faults[] = new TimeFault(($leftOut[$run[$i]] ?? 0) >= $lost ? 'left out' : 'gap', $times[$run[$i - 1]], $d, $run[$i]);
                    if ($lost > self::MOST_BRIDGED) {
                        $parts[] = ['rows' => $rows, 'missing' => $missing];
                        $rows = [];
                        $missing = [];
                    } elseif ($lost > 0) {
                        $missing[$run[$i - 1]] = $lost;
                    }
                }
                $rows[] = $run[$i];
            }
            $parts[] = ['rows' => $rows, 'missing' => $missing];
            foreach ($parts as $part) {
                $count = \count($part['rows']) + array_sum($part['missing']);
                $start = $times[$part['rows'][0]] + $shift;
                if ($start < $lastEnd) {
                    $shift += $lastEnd - $start + $dt;
                    $start = $lastEnd + $dt;
                }
                $segments[] = $segment = new Segment($sample, $count, $start);
                $lastEnd = $segment->endS(1 / $dt);
                $plan[] = $part;
                $sample += $count;
            }
        }
        usort($faults, static fn (TimeFault $a, TimeFault $b): int => $a->row <=> $b->row);

        return new self(1.0 / $dt, $sample, $segments, $faults, $plan);
    }

    /**
     * A clock already known, as kept beside a stored log.
     *
     * @param list<Segment>   $segments
     * @param list<TimeFault> $faults
     */
    public static function known(float $rateHz, array $segments, array $faults): self
    {
        $samples = 0;
        foreach ($segments as $segment) {
            $samples += $segment->count;
        }

        return new self($rateHz, $samples, $segments, $faults, []);
    }

    /**
     * Puts one column on the grid.
     *
     * @param list<float> $column one value per source row
     *
     * @return list<float> $samples values
     */
    public function arrange(array $column): array
    {
        $out = [];
        foreach ($this->plan as $part) {
            if ([] === $part['missing'] && \count($part['rows']) === \count($column)) {
                return $column;
            }
            $before = null;
            foreach ($part['rows'] as $row) {
                $value = $column[$row];
                if (null !== $before && isset($part['missing'][$before])) {
                    $lost = $part['missing'][$before];
                    $from = $column[$before];
                    for ($j = 1; $j <= $lost; ++$j) {
                        $out[] = $from + ($value - $from) * $j / ($lost + 1);
                    }
                }
                $out[] = $value;
                $before = $row;
            }
        }

        return $out;
    }

    /** Seconds from the first to the last sample, pauses included. */
    public function durationS(): float
    {
        $last = $this->segments[\count($this->segments) - 1];

        return $last->endS($this->rateHz) - $this->segments[0]->startS;
    }

    /** @return list<TimeFault> only the gaps */
    public function gaps(): array
    {
        return array_values(array_filter($this->faults, static fn (TimeFault $f): bool => 'gap' === $f->kind));
    }

    /**
     * @param list<float> $times
     *
     * @return array{list<non-empty-list<int>>, list<TimeFault>} rows whose stamps do not go back, run by run
     */
    private static function forwardRuns(array $times): array
    {
        if ([] === $times) {
            throw LogError::of('The log has no readable rows.');
        }
        $runs = $faults = [];
        /** @var non-empty-list<int> $run */
        $run = [0];
        /** @var list<int> $held */
        $held = [];
        $last = $times[0];
        for ($i = 1, $n = \count($times); $i < $n; ++$i) {
            $t = $times[$i];
            if ($t >= $last) {
                if ([] !== $held) {
                    $faults[] = new TimeFault('back', $last, $last - $times[$held[0]], $held[0]);
                    $held = [];
                }
                $run[] = $i;
                $last = $t;
                continue;
            }
            $held[] = $i;
            if (\count($held) >= self::RESTART_ROWS) {
                $faults[] = new TimeFault('back', $last, $last - $times[$held[0]], $held[0]);
                $runs[] = $run;
                /** @var non-empty-list<int> $run */
                $run = [$held[0]];
                for ($j = 1; $j < \count($held); ++$j) {
                    if ($times[$held[$j]] >= $times[$run[\count($run) - 1]]) {
                        $run[] = $held[$j];
                    }
                }
                $last = $times[$run[\count($run) - 1]];
                $held = [];
            }
        }
        if ([] !== $held) {
            $faults[] = new TimeFault('back', $last, $last - $times[$held[0]], $held[0]);
        }
        $runs[] = $run;

        return [$runs, $faults];
    }

    /**
     * @param list<float>               $times
     * @param list<non-empty-list<int>> $runs
     */
    private static function period(array $times, array $runs, float $gap): float
    {
        $duration = 0.0;
        $steps = 0;
        foreach ($runs as $run) {
            for ($i = 1, $n = \count($run); $i < $n; ++$i) {
                $d = $times[$run[$i]] - $times[$run[$i - 1]];
                if ($d <= $gap) {
                    $duration += $d;
                    ++$steps;
                }
            }
        }

        return $duration / max(1, $steps);
    }

    /**
     * Rounding of the stamps, as far as it makes the steps uneven; 0 where they are even.
     *
     * @param list<float> $times
     * @param list<float> $positive steps forward
     */
    private static function quantum(array $times, array $positive, float $dt): float
    {
        $uneven = 0;
        $near = [];
        foreach ($positive as $d) {
            $uneven += abs($d - $dt) > 0.1 * $dt && $d < 2.5 * $dt ? 1 : 0;
            if ($d < 1.5 * $dt) {
                $near[] = $d;
            }
        }
        if ($uneven < 0.05 * \count($positive) && \count($positive) > 0.95 * (\count($times) - 1)) {
            return 0.0;
        }
        // A grid that all stamps lie on, coarsest first.
        for ($power = 0; $power <= 7; ++$power) {
            foreach ([1.0, 0.5, 0.2] as $step) {
                $grid = $step * 10 ** -$power;
                if ($grid > 20 * $dt) {
                    continue;
                }
                $fits = true;
                foreach (\array_slice($times, 0, 3000) as $t) {
                    if (abs($t / $grid - round($t / $grid)) > 1e-3) {
                        $fits = false;
                        break;
                    }
                }
                if ($fits) {
                    return $grid;
                }
            }
        }
        sort($near);

        return [] === $near ? 0.0 : Statistics::quantileOfSorted($near, 0.99) - Statistics::quantileOfSorted($near, 0.01);
    }
}
