<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Clock;

use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\TimeFault;
use Ortholex\Core\FlightLog\TimeFaultKind;

/**
 * One run of stamps laid on an even grid: which rows are its samples, where samples are missing and can be bridged, and where a
 * gap begins another part.
 *
 * @phpstan-type Part array{rows: list<array{int, int}>, missing: array<int, int>, start: float, count: int, spanS: float}
 */
final class RunGrid
{
    /** @var list<Part> */
    public array $parts = [];

    /** @var list<TimeFault> */
    public array $faults = [];

    /** @var list<array{int, int}> of the part that is open */
    private array $rows = [];

    /** @var array<int, int> samples missing after a row */
    private array $missing = [];

    private float $start = 0.0;
    private int $count = 0;

    /** How far stamps stand behind the even grid, smoothed: a late stamp is made up for by the next ones, a missing sample is not. */
    private float $behind = 0.0;

    /** Smoothing of that, and how many stamps ahead tell whether it stays. */
    private const SMOOTH = 0.05;

    private const AHEAD = 9;

    /** Where those leave it open, by this much of a sample, so many tell. */
    private const OPEN = 0.2;

    private const FAR_AHEAD = 31;

    /** First row of the range that is open; −1 when none is. */
    private int $open = -1;

    private int $last = -1;

    /**
     * @param float           $dt      period, s
     * @param float           $quantum what the stamps were rounded to, s
     * @param array<int, int> $leftOut unreadable rows before a row, which explain a hole there
     * @param int             $most    samples missing in one place that are still bridged
     */
    public function __construct(
        private readonly float $dt,
        private readonly float $quantum,
        private readonly array $leftOut,
        private readonly int $most,
    ) {
    }

    /** @param list<array{int, int}> $run ranges of rows */
    public function lay(Column $times, array $run): self
    {
        $before = null;
        $widest = 1.5 * $this->dt + $this->quantum * 0.999;
        $repeats = $this->quantum < 0.5 * $this->dt;
        foreach (Stretches::of($times, $run) as [$row, $chunk]) {
            foreach ($chunk as $t) {
                $step = null === $before ? null : $t - $before;
                if (null === $step) {
                    [$this->start, $this->open] = [$t, $row];
                } elseif (0.0 === $step && $repeats) {
                    $this->faults[] = new TimeFault(TimeFaultKind::Repeat, $t, 0.0, $row);
                    $this->close();
                    ++$row;
                    continue;
                } else {
                    if ($step > $widest) {
                        $this->hole($times, $before, $t, $row);
                    }
                    if ($this->open < 0) {
                        $this->open = $row;
                    } elseif ($this->last !== $row - 1 && $this->open !== $row) {
                        $this->close();
                        $this->open = $row;
                    }
                }
                $this->behind += self::SMOOTH * ($t - $this->start - $this->count * $this->dt - $this->behind);
                ++$this->count;
                $before = $t;
                $this->last = $row;
                ++$row;
            }
        }
        $this->endPart();

        return $this;
    }

    private function hole(Column $times, float $before, float $t, int $row): void
    {
        $lost = $this->missingAt($times, $t, $row);
        if ($lost <= 0) {
            return;
        }
        $explained = ($this->leftOut[$row] ?? 0) >= $lost;
        $this->faults[] = new TimeFault($explained ? TimeFaultKind::LeftOut : TimeFaultKind::Gap, $before, $t - $before, $row);
        if ($lost > $this->most) {
            $this->endPart();
            [$this->start, $this->open, $this->behind] = [$t, $row, 0.0];
        } else {
            $this->missing[$this->last] = $lost;
            $this->count += $lost;
        }
    }

    /** Samples that are missing before a row. */
    private function missingAt(Column $times, float $t, int $row): int
    {
        $lost = $this->behindAt($times, $t, $row, self::AHEAD);
        if (abs($lost - floor($lost) - 0.5) < 0.5 - self::OPEN) {
            $lost = $this->behindAt($times, $t, $row, self::FAR_AHEAD);
        }

        return (int) round($lost);
    }

    /** By how many samples the stamps from a row on stand further behind than those before. */
    private function behindAt(Column $times, float $t, int $row, int $ahead): float
    {
        $off = [];
        foreach ($times->values($row, $ahead) as $k => $stamp) {
            if ($stamp - $t > 2 * $ahead * $this->dt + $this->quantum) {
                break;
            }
            $off[] = $stamp - $this->start - ($this->count + $k) * $this->dt;
        }
        sort($off);

        return [] === $off ? 0.0 : ($off[intdiv(\count($off) - 1, 2)] - $this->behind) / $this->dt;
    }

    private function endPart(): void
    {
        $this->close();
        $this->parts[] = [
            'rows' => $this->rows,
            'missing' => $this->missing,
            'start' => $this->start,
            'count' => $this->count,
            'spanS' => ($this->count - 1) * $this->dt + $this->behind,
        ];
        $this->rows = $this->missing = [];
        $this->count = 0;
    }

    private function close(): void
    {
        if ($this->open >= 0) {
            $this->rows[] = [$this->open, $this->last];
            $this->open = -1;
        }
    }
}
