<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\BadRowReason;
use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\BadStretch;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;

/**
 * Rows of a CSV, block by block, on their way into columns.
 *
 * A piece of well-formed lines is parsed in one go; a piece with anything odd in it is read line by line, so that one torn row costs its
 * neighbours nothing. Rows that cannot be read are counted, located and left out. Columns are spooled, so that memory does not grow with
 * the file.
 *
 * @phpstan-type Told array{good: int, line: int, bad: int, places: list<BadStretch>, before: array<int, int>, numbers: list<int>}
 */
final class Rows
{
    /** What a float is made of as it stands, with blanks around it. Nothing in it is tried twice. */
    private const FIGURE = '[ \t]*+([+-]?+(?:[0-9]++(?:\.[0-9]*+)?+|\.[0-9]++)(?:[eE][+-]?+[0-9]++)?+)[ \t]*+';

    /** One that can be kept whatever its unit, of a column that is only judged. Others are looked at one by one. */
    private const PLAIN_FIGURE = '[ \t]*+[+-]?+(?:[0-9]{1,20}+(?:\.[0-9]*+)?+|\.[0-9]++)(?:[eE](?:-[0-9]++|[+]?+[0-9](?![0-9])))?+[ \t]*+';

    /** Used columns of a table whose rows are told by a pattern: it grows with them, and may not grow without end. */
    private const MOST_CAUGHT = 150;

    /** Bytes parsed at once: few enough that their cells are still at hand when they become columns, and lines enough to be worth it. */
    private const PIECE_BYTES = 65_536;

    private const PLACES_KEPT = 100;

    /** @var list<int> index of the CSV column of each kept trace */
    private array $columns = [];

    /** @var array<int, array{float, float}> by CSV column, scale and offset of each trace, whether it is kept or only judged */
    private array $conversions = [];

    /** A row whose used cells are figures; each of them is caught. Null where too many are used. */
    private readonly ?string $pattern;

    /** @var array<int, int> which of what is caught stands in a CSV column */
    private readonly array $caught;

    private readonly int $width;
    private readonly int $timeColumn;
    private readonly float $timeScale;

    /** Seconds, float64. */
    public readonly Column $times;

    /** @var list<Column> per kept trace */
    private array $spools = [];

    /** @var array<int, string> packed, not yet spooled; -1 is time */
    private array $waiting = [];

    private int $good = 0;

    /** @var array<int, int> readable row => how many unreadable ones stood right before it */
    private array $leftOutBefore = [];

    private int $badCount = 0;

    /** @var list<BadStretch> */
    private array $badPlaces = [];

    /** Lines gone past. */
    private int $line = 0;

    /** @throws LogError where there is no room for a temporary file */
    public function __construct(private readonly LogPlan $plan, int $timeColumn)
    {
        $this->timeColumn = $timeColumn;
        $this->timeScale = $plan->units[Traces::TIME]->scale;
        $this->width = \count($plan->dialect->header);
        $this->times = Column::spool(8);
        foreach ($plan->traces() as $trace => $guess) {
            $this->conversions[$guess->column] = [$plan->units[$trace]->scale, $plan->units[$trace]->offset];
            if ($plan->keeps($trace)) {
                $this->columns[] = $guess->column;
                $this->spools[] = Column::spool(4);
            }
        }
        $used = array_unique([$timeColumn, ...$this->columns]);
        sort($used);
        $this->caught = array_map(static fn (int $place): int => $place + 1, array_flip($used));
        $judged = array_map(static fn (): string => self::PLAIN_FIGURE, $this->conversions);
        $cells = array_replace(array_fill(0, $this->width, '[^,\n]*+'), $judged, array_fill_keys($used, self::FIGURE));
        $this->pattern = \count($judged) >= self::MOST_CAUGHT ? null : '~^(?!#)'.implode(',', $cells).'$~m';
    }

    /**
     * Given away one by one, so that what becomes of them needs the room of one of them more, and not of all.
     *
     * @return \Generator<int, Column> one value per row, in the order of the plan's traces
     */
    public function columns(): \Generator
    {
        while ([] !== $this->spools) {
            yield array_shift($this->spools);
        }
    }

    /** @return array<int, int> readable row => how many unreadable ones stood right before it */
    public function leftOutBefore(): array
    {
        return $this->leftOutBefore;
    }

    public function bad(): BadRows
    {
        return new BadRows($this->badCount, $this->badPlaces);
    }

    /** Goes past lines that hold no rows. */
    public function skip(int $lines): void
    {
        $this->line += $lines;
    }

    /**
     * Whole lines, without the end of the last.
     *
     * @param bool $last whether they are the last of the file
     */
    public function take(string $data, bool $last): void
    {
        $data = rtrim($this->plan->dialect->plain($data), "\n");
        if ('' === $data) {
            return;
        }
        $end = \strlen($data);
        for ($at = 0; $at < $end; $at += \strlen($piece) + 1) {
            $until = $at + self::PIECE_BYTES < $end ? strpos($data, "\n", $at + self::PIECE_BYTES) : false;
            $piece = substr($data, $at, (false === $until ? $end : $until) - $at);
            if (!$this->takeFigures($piece)) {
                // Looked at cell by cell, each of them can be kept.
                $kept = $this->keep($this->lineByLine($piece, $last && false === $until));
                \assert($kept);
            }
        }
        foreach ([-1 => $this->times] + $this->spools as $n => $column) {
            $column->append($this->waiting[$n] ?? '');
        }
        $this->waiting = [];
    }

    /** Whether each of the lines is a row of figures that can be kept; if not, nothing was taken. */
    private function takeFigures(string $piece): bool
    {
        $lines = substr_count($piece, "\n") + 1;
        if (null === $this->pattern || $lines !== preg_match_all($this->pattern, $piece, $caught)) {
            return false;
        }
        /** @var array<int, list<numeric-string>> $columns */
        $columns = array_map(static fn (int $place): array => $caught[$place], $this->caught);
        if (!$this->keep($columns)) {
            return false;
        }
        $this->line += $lines;
        $this->good += $lines;

        return true;
    }

    public function leaveOut(Fact $reason): void
    {
        ++$this->line;
        $this->isBad($reason);
    }

    /** The last row that could not be read is torn because the rest of the file is missing; else the next would be. */
    public function breakOff(): void
    {
        $at = \count($this->badPlaces) - 1;
        if ($at >= 0 && $this->badPlaces[$at]->reason->is(BadRowReason::Torn)) {
            array_pop($this->badPlaces);
            $this->badPlaces[] = new BadStretch($this->line, 1, Fact::of(BadRowReason::BreaksOff));
        } else {
            $this->leaveOut(Fact::of(BadRowReason::BreaksOff));
        }
    }

    /** Nothing of what was taken is kept. */
    public function clear(): void
    {
        foreach ([$this->times, ...$this->spools] as $column) {
            $column->clear();
        }
        $this->good = $this->badCount = $this->line = 0;
        $this->leftOutBefore = $this->badPlaces = [];
    }

    /** @return Told all that is known of them but the numbers, which stand in the columns' files */
    public function told(): array
    {
        return [
            'good' => $this->good,
            'line' => $this->line,
            'bad' => $this->badCount,
            'places' => $this->badPlaces,
            'before' => $this->leftOutBefore,
            'numbers' => array_map(static fn (Column $c): int => $c->count, [$this->times, ...$this->spools]),
        ];
    }

    /**
     * What was told of them is so, perhaps by another process.
     *
     * @param Told $told
     */
    public function recall(array $told): void
    {
        $this->good = $told['good'];
        $this->line = $told['line'];
        $this->badCount = $told['bad'];
        $this->badPlaces = $told['places'];
        $this->leftOutBefore = $told['before'];
        foreach ([$this->times, ...$this->spools] as $n => $column) {
            $column->holds($told['numbers'][$n]);
        }
    }

    /** Those of the lines that come behind, by the same plan, are put behind these. */
    public function follow(self $later): void
    {
        foreach ([$this->times, ...$this->spools] as $n => $column) {
            $one = [$later->times, ...$later->spools][$n];
            $column->follow($one);
            // Its room is given back before the next takes some.
            $one->clear();
        }
        foreach ($later->leftOutBefore as $row => $count) {
            $this->leftOutBefore[$this->good + $row] = ($this->leftOutBefore[$this->good + $row] ?? 0) + $count;
        }
        foreach ($later->badPlaces as $place) {
            $this->locate($this->line + $place->line, $place->count, $place->reason);
        }
        $this->good += $later->good;
        $this->line += $later->line;
        $this->badCount += $later->badCount;
        $later->clear();
    }

    /** @return array<int, list<float>> by CSV column */
    private function lineByLine(string $data, bool $last): array
    {
        $rows = [];
        $lines = explode("\n", $data);
        $end = \count($lines) - 1;
        foreach ($lines as $n => $text) {
            ++$this->line;
            if ('' === $text || '#' === $text[0]) {
                continue;
            }
            $cells = explode(',', $text);
            if (\count($cells) !== $this->width) {
                $this->isBad(
                    $last && $n === $end
                        ? Fact::of(BadRowReason::Torn)
                        : Fact::of(BadRowReason::WrongCells, cells: \count($cells), wanted: $this->width),
                );
                continue;
            }
            $row = [];
            foreach ($cells as $i => $cell) {
                if (!is_numeric($cell)) {
                    if ($i === $this->timeColumn || isset($this->conversions[$i])) {
                        $this->isBad(Fact::of(BadRowReason::NotANumber, column: $i + 1));
                        continue 2;
                    }
                    $cell = 0;
                }
                $row[] = (float) $cell;
            }
            $beyond = $this->beyond($row);
            if (null !== $beyond) {
                $this->isBad(Fact::of(BadRowReason::NotFinite, column: $beyond + 1));
                continue;
            }
            $rows[] = $row;
            ++$this->good;
        }

        $used = array_keys($this->caught);

        return array_combine($used, array_map(static fn (int $column): array => array_column($rows, $column), $used));
    }

    private function isBad(Fact $reason): void
    {
        ++$this->badCount;
        $this->leftOutBefore[$this->good] = ($this->leftOutBefore[$this->good] ?? 0) + 1;
        $this->locate($this->line, 1, $reason);
    }

    private function locate(int $line, int $count, Fact $reason): void
    {
        $at = \count($this->badPlaces) - 1;
        $longer = $at >= 0 ? $this->badPlaces[$at]->with($line, $reason, $count) : null;
        if (null !== $longer) {
            array_pop($this->badPlaces);
            $this->badPlaces[] = $longer;
        } elseif ($at + 1 < self::PLACES_KEPT) {
            $this->badPlaces[] = new BadStretch($line, $count, $reason);
        }
    }

    /**
     * Column of the first number that cannot be kept, of those that are used; null when all can be.
     *
     * @param list<float> $row
     */
    private function beyond(array $row): ?int
    {
        if (!Cell::fits($row[$this->timeColumn] * $this->timeScale)) {
            return $this->timeColumn;
        }
        foreach ($this->conversions as $column => [$scale, $offset]) {
            if (!Cell::fits($row[$column] * $scale + $offset)) {
                return $column;
            }
        }

        return null;
    }

    /**
     * Whether all of them could be kept; if not, none was.
     *
     * @param array<int, list<float>|list<numeric-string>> $columns by CSV column
     */
    private function keep(array $columns): bool
    {
        if ([] === $columns[$this->timeColumn]) {
            return true;
        }
        $packed = [];
        foreach ([-1 => $this->timeColumn] + $this->columns as $n => $column) {
            $values = $columns[$column];
            [$scale, $offset] = -1 === $n ? [$this->timeScale, 0.0] : $this->conversions[$column];
            if (1.0 !== $scale || 0.0 !== $offset) {
                foreach ($values as $i => $v) {
                    $values[$i] = (float) $v * $scale + $offset;
                }
            }
            $packed[$n] = -1 === $n ? pack('e*', ...$values) : pack('g*', ...$values);
            if (-1 === $n || Cell::mayNotFit($packed[$n])) {
                $values = array_map(floatval(...), $values);
                if ([] === $values || !Cell::fits(max($values)) || !Cell::fits(min($values))) {
                    return false;
                }
            }
        }
        foreach ($packed as $n => $bytes) {
            $this->waiting[$n] = ($this->waiting[$n] ?? '').$bytes;
        }

        return true;
    }
}
