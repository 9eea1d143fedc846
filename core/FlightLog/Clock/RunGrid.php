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
 * @phpstan-type Part array{rows: list<array{int, int}>, missing: array<int, int>, start: float, count: int}
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
                        $this->hole($before, $t, $row);
                    }
                    if ($this->open < 0) {
                        $this->open = $row;
                    } elseif ($this->last !== $row - 1 && $this->open !== $row) {
                        $this->close();
                        $this->open = $row;
                    }
                }
                ++$this->count;
                $before = $t;
                $this->last = $row;
                ++$row;
            }
        }
        $this->endPart();

        return $this;
    }

    private function hole(float $before, float $t, int $row): void
    {
        $lost = (int) round(($t - $before) / $this->dt) - 1;
        $explained = ($this->leftOut[$row] ?? 0) >= $lost;
        $this->faults[] = new TimeFault($explained ? TimeFaultKind::LeftOut : TimeFaultKind::Gap, $before, $t - $before, $row);
        if ($lost > $this->most) {
            $this->endPart();
            [$this->start, $this->open] = [$t, $row];
        } elseif ($lost > 0) {
            $this->missing[$this->last] = $lost;
            $this->count += $lost;
        }
    }

    private function endPart(): void
    {
        $this->close();
        $this->parts[] = ['rows' => $this->rows, 'missing' => $this->missing, 'start' => $this->start, 'count' => $this->count];
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
