<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\FlightLog\Clock\ForwardRuns;
use Ortholex\Core\FlightLog\Clock\RunGrid;
use Ortholex\Core\FlightLog\Clock\Stretches;
use Ortholex\Core\Signal\Statistics;

/**
 * What the time stamps of a log say: sample rate, gap-free segments, and how each kept row falls on the grid.
 *
 * The rate is samples over duration in gap-free runs, so stamps rounded coarser than the period do no harm.
 * Up to five missing samples are bridged by straight lines; a longer pause starts a new segment.
 *
 * @phpstan-import-type Part from RunGrid
 */
final readonly class SampleClock
{
    private const MOST_BRIDGED = 5;

    /** No recorder samples faster; stamps that say so are in another unit. */
    private const LEAST_PERIOD_S = 4e-6;

    /** So many samples tell the period by the stretch they span; it is off by no more than this share from that of single steps. */
    private const LEAST_KEPT = 200;

    private const MOST_KEPT_OFF = 0.2;

    /** Rows looked at in one place for what stamps were rounded to. */
    private const LOOKED_AT = 3000;

    /** As many steps as this are enough to find the middle one. */
    private const STEPS_KEPT = 200_000;

    /**
     * @param list<Segment>                                                              $segments
     * @param list<TimeFault>                                                            $faults
     * @param list<array{rows: list<array{int, int}>, missing: array<int, int>}> $plan per segment: ranges of source rows in
     *     order, first and last, and after which row how many samples are missing
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
        $column = Column::spool(8);
        foreach (array_chunk($times, Stretches::ROWS) as $chunk) {
            $column->append(pack('e*', ...$chunk));
        }

        return self::of($column, $leftOut);
    }

    /**
     * @param Column          $times   seconds, float64, in file order; read in pieces, however long it is
     * @param array<int, int> $leftOut
     *
     * @throws LogError when fewer than two distinct times are there
     */
    public static function of(Column $times, array $leftOut = []): self
    {
        $times = $times->held();
        $forward = ForwardRuns::of($times);
        $positive = self::steps($times, $forward->runs);
        if ([] === $positive) {
            throw LogError::timeStands();
        }
        $coarse = Statistics::median($positive);
        $dt = self::period($times, $forward->runs, 2.5 * $coarse);
        $quantum = self::quantum($times, $positive, $dt);
        // Second look with the true period: short gaps no longer dilute it. Where stamps come late by chance, long steps are not gaps.
        if (!self::isUneven($positive, $dt) || $quantum > 0.3 * $dt) {
            $dt = self::period($times, $forward->runs, 1.5 * $dt + $quantum);
        }
        if (!($dt >= self::LEAST_PERIOD_S)) {
            throw LogError::tooFast($dt);
        }
        // Stamps that come late by chance are longer steps at most: the period is the one that whole stretches keep.
        [$parts] = self::laid($times, $forward->runs, $dt, $quantum, $leftOut);
        $samples = array_sum(array_column($parts, 'count')) - \count($parts);
        $kept = $samples >= self::LEAST_KEPT ? array_sum(array_column($parts, 'spanS')) / $samples : $dt;
        $dt = abs($kept / $dt - 1) < self::MOST_KEPT_OFF ? $kept : $dt;
        if ($dt < self::LEAST_PERIOD_S) {
            throw LogError::tooFast($dt);
        }
        [$parts, $faults] = self::laid($times, $forward->runs, $dt, $quantum, $leftOut);
        $faults = array_merge($forward->faults, $faults);
        usort($faults, static fn (TimeFault $a, TimeFault $b): int => $a->row <=> $b->row);
        $segments = self::segments($parts, $dt);

        return new self(
            1.0 / $dt,
            array_sum(array_column($parts, 'count')),
            $segments,
            $faults,
            array_map(static fn (array $p): array => ['rows' => $p['rows'], 'missing' => $p['missing']], $parts),
        );
    }

    /**
     * @param list<list<array{int, int}>> $runs
     * @param array<int, int>             $leftOut
     *
     * @return array{list<Part>, list<TimeFault>}
     */
    private static function laid(Column $times, array $runs, float $dt, float $quantum, array $leftOut): array
    {
        $parts = $faults = [];
        foreach ($runs as $run) {
            $grid = (new RunGrid($dt, $quantum, $leftOut, self::MOST_BRIDGED))->lay($times, $run);
            array_push($parts, ...$grid->parts);
            array_push($faults, ...$grid->faults);
        }

        return [$parts, $faults];
    }

    /**
     * Parts one after the other: where the clock was started anew, what follows is shifted to stand after what was before.
     *
     * @param list<Part> $parts
     *
     * @return list<Segment>
     */
    private static function segments(array $parts, float $dt): array
    {
        $segments = [];
        $sample = 0;
        $shift = 0.0;
        $lastEnd = -\INF;
        foreach ($parts as $part) {
            $begin = $part['start'] + $shift;
            if ($begin < $lastEnd) {
                $shift += $lastEnd - $begin + $dt;
                $begin = $lastEnd + $dt;
            }
            $segments[] = $segment = new Segment($sample, $part['count'], $begin);
            $lastEnd = $segment->endS(1 / $dt);
            $sample += $part['count'];
        }

        return $segments;
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
     * @param Column $column one value per source row
     */
    public function arrange(Column $column): Column
    {
        if (1 === \count($this->plan) && [] === $this->plan[0]['missing'] && [[0, $column->count - 1]] === $this->plan[0]['rows']) {
            return $column;
        }
        $out = Column::spool(4);
        foreach ($this->plan as $part) {
            foreach ($part['rows'] as [$first, $last]) {
                // Straight lines stand where samples are missing; between them whole stretches are copied.
                $from = $first;
                foreach (self::holes($part['missing'], $first, $last) as $row => $lost) {
                    $out->append($column->bytes($from, $row - $from + 1));
                    $a = $column->values($row, 1)[0];
                    $b = $column->values($row + 1, 1)[0] ?? $a;
                    $line = [];
                    for ($j = 1; $j <= $lost; ++$j) {
                        $line[] = $a + (($b - $a) * $j) / ($lost + 1);
                    }
                    $out->append(pack('g*', ...$line));
                    $from = $row + 1;
                }
                if ($from <= $last) {
                    $out->append($column->bytes($from, $last - $from + 1));
                }
            }
        }

        return $out;
    }

    /**
     * The part of the clock between two times.
     *
     * @return array{self, int, int} the clock, and which samples it keeps: first and count
     *
     * @throws LogError when nothing lies there
     */
    public function between(float $fromS, float $toS): array
    {
        $segments = [];
        $first = null;
        $count = 0;
        foreach ($this->segments as $s) {
            $a = max(0, (int) ceil(($fromS - $s->startS) * $this->rateHz - 1e-6));
            $b = min($s->count - 1, (int) floor(($toS - $s->startS) * $this->rateHz + 1e-6));
            if ($b < $a) {
                continue;
            }
            $first ??= $s->first + $a;
            $segments[] = new Segment($count, $b - $a + 1, $s->startS + $a / $this->rateHz);
            $count += $b - $a + 1;
        }
        if (null === $first) {
            $last = $this->segments[\count($this->segments) - 1];
            throw LogError::nothingBetween($fromS, $toS, $this->segments[0]->startS, $last->endS($this->rateHz));
        }

        return [
            self::known(
                $this->rateHz,
                $segments,
                array_values(array_filter($this->faults, static fn (TimeFault $f): bool => $f->atS >= $fromS && $f->atS <= $toS)),
            ),
            $first,
            $count,
        ];
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
        return array_values(array_filter($this->faults, static fn (TimeFault $f): bool => TimeFaultKind::Gap === $f->kind));
    }

    /**
     * @param array<int, int> $missing
     *
     * @return array<int, int> those within a range of rows, in order
     */
    private static function holes(array $missing, int $first, int $last): array
    {
        return array_filter($missing, static fn (int $row): bool => $row >= $first && $row <= $last, \ARRAY_FILTER_USE_KEY);
    }

    /**
     * Steps forward, all of them or evenly chosen stretches.
     *
     * @param list<list<array{int, int}>> $runs
     *
     * @return list<float>
     */
    private static function steps(Column $times, array $runs): array
    {
        $every = max(1, (int) ceil($times->count / self::STEPS_KEPT));
        $steps = [];
        foreach ($runs as $run) {
            $n = 0;
            $before = null;
            foreach (Stretches::of($times, $run) as [, $chunk]) {
                if (0 !== $n++ % $every) {
                    $before = null;
                    continue;
                }
                foreach ($chunk as $t) {
                    if (null !== $before && $t > $before) {
                        $steps[] = $t - $before;
                    }
                    $before = $t;
                }
            }
        }

        return $steps;
    }

    /**
     * Whether more than a twentieth of the steps are off the period by a tenth.
     *
     * @param list<float> $positive steps forward
     */
    private static function isUneven(array $positive, float $dt): bool
    {
        $uneven = 0;
        foreach ($positive as $d) {
            $uneven += abs($d - $dt) > 0.1 * $dt && $d < 2.5 * $dt ? 1 : 0;
        }

        return $uneven >= 0.05 * \count($positive);
    }

    /** @param list<list<array{int, int}>> $runs */
    private static function period(Column $times, array $runs, float $gap): float
    {
        $duration = 0.0;
        $steps = 0;
        foreach ($runs as $run) {
            $before = null;
            foreach (Stretches::of($times, $run) as [, $chunk]) {
                foreach ($chunk as $t) {
                    if (null !== $before && $t - $before <= $gap) {
                        $duration += $t - $before;
                        ++$steps;
                    }
                    $before = $t;
                }
            }
        }

        return $duration / max(1, $steps);
    }

    /**
     * Rounding of the stamps, as far as it makes the steps uneven; 0 where they are even.
     *
     * @param list<float> $positive steps forward
     */
    private static function quantum(Column $times, array $positive, float $dt): float
    {
        $seen = min(
            $times->count - 1,
            \count($positive) < self::STEPS_KEPT / 2 || $times->count <= self::STEPS_KEPT ? $times->count - 1 : \count($positive),
        );
        if (!self::isUneven($positive, $dt) && \count($positive) > 0.95 * $seen) {
            return 0.0;
        }
        // Stamps with so many digits are rounded coarser later on.
        $coarsest = 0.0;
        foreach ([0, intdiv($times->count, 2), max(0, $times->count - self::LOOKED_AT)] as $from) {
            $coarsest = max($coarsest, self::grid($times->values($from, min(self::LOOKED_AT, $times->count - $from)), 20 * $dt));
        }

        return $coarsest;
    }

    /**
     * The coarsest round grid that all stamps lie on; 0 where they lie on none.
     *
     * @param list<float> $stamps
     */
    private static function grid(array $stamps, float $most): float
    {
        for ($power = 0; $power <= 7; ++$power) {
            foreach ([1.0, 0.5, 0.2] as $step) {
                $grid = $step * 10 ** -$power;
                if ($grid > $most) {
                    continue;
                }
                $fits = true;
                foreach ($stamps as $t) {
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

        return 0.0;
    }
}
