<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Clock;

use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\TimeFault;
use Ortholex\Core\FlightLog\TimeFaultKind;
use Ortholex\Core\Signal\Statistics;

/**
 * Ranges of rows whose stamps do not go back, run by run. A stamp that comes before the last by less than a period was only written late
 * or early, and stays. A few that go back further are left out; where they keep on, the clock was started anew, and another run begins.
 */
final class ForwardRuns
{
    /** So many rows in a row behind the last are a clock that was started anew. */
    private const RESTART_ROWS = 50;

    /** Rows that tell the period, and the share of it that a stamp may stand before the last. */
    private const LOOKED_AT = 4000;

    private const WOBBLE = 0.9;

    /** @var list<list<array{int, int}>> */
    public array $runs = [];

    /** @var list<TimeFault> */
    public array $faults = [];

    /** @var list<array{int, int}> of the run that is open */
    private array $ranges = [];

    /** @var array<int, float> stamps behind the last, by row: waiting to see whether they keep on */
    private array $held = [];

    /** First row of the range that is open. */
    private int $open = 0;

    private float $last = -\INF;

    /** @param float $wobble how far a stamp may stand before the last, s */
    private function __construct(private readonly float $wobble)
    {
    }

    /** @throws LogError when there are no rows */
    public static function of(Column $times): self
    {
        if (0 === $times->count) {
            throw LogError::noSamples();
        }
        $runs = new self(self::WOBBLE * self::period($times->values(0, min(self::LOOKED_AT, $times->count))));
        foreach (Stretches::of($times, [[0, $times->count - 1]]) as [$row, $chunk]) {
            $runs->take($row, $chunk);
        }
        $runs->finish($times->count - 1);

        return $runs;
    }

    /**
     * @param list<float> $stamps
     *
     * @return float the middle step forward, s; 0 where there is none
     */
    private static function period(array $stamps): float
    {
        $steps = [];
        foreach ($stamps as $i => $t) {
            if ($i > 0 && $t > $stamps[$i - 1]) {
                $steps[] = $t - $stamps[$i - 1];
            }
        }

        return [] === $steps ? 0.0 : Statistics::median($steps);
    }

    /** @param list<float> $chunk */
    private function take(int $row, array $chunk): void
    {
        $last = $this->last;
        foreach ($chunk as $t) {
            if ($t >= $last) {
                if ([] !== $this->held) {
                    $this->last = $last;
                    $this->leaveOut();
                    $this->open = $row;
                    $this->held = [];
                }
                $last = $t;
                ++$row;
                continue;
            }
            if ([] === $this->held && $last - $t < $this->wobble) {
                ++$row;
                continue;
            }
            $this->held[$row] = $t;
            if (\count($this->held) >= self::RESTART_ROWS) {
                $this->last = $last;
                $this->startAnew();
                $last = $this->last;
            }
            ++$row;
        }
        $this->last = $last;
    }

    /** What was held back is a fault; the range ends before it. */
    private function leaveOut(): int
    {
        $from = (int) array_key_first($this->held);
        $this->faults[] = new TimeFault(TimeFaultKind::Back, $this->last, $this->last - $this->held[$from], $from);
        $this->close($from - 1);

        return $from;
    }

    private function startAnew(): void
    {
        $from = $this->leaveOut();
        $this->runs[] = $this->ranges;
        $this->ranges = [];
        $this->open = $from;
        $this->last = $this->held[$from];
        // Within what was held, later stamps may still go back: those are left out.
        foreach ($this->held as $at => $time) {
            if ($time < $this->last) {
                $this->close($at - 1);
                $this->open = $at + 1;
            } else {
                $this->last = $time;
            }
        }
        $this->held = [];
    }

    private function finish(int $end): void
    {
        if ([] !== $this->held) {
            $end = (int) array_key_first($this->held) - 1;
            $this->leaveOut();
        } else {
            $this->close($end);
        }
        $this->runs[] = $this->ranges;
        $this->runs = array_values(array_filter($this->runs, static fn (array $r): bool => [] !== $r));
    }

    private function close(int $end): void
    {
        if ($this->open <= $end) {
            $this->ranges[] = [$this->open, $end];
        }
    }
}
