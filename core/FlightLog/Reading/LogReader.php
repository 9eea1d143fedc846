<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\BadRowReason;
use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\BadStretch;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\FlightLog\Traces;

/**
 * Reads any CSV of a flight, plain or gzip, block by block, by a plan of what its columns are.
 *
 * A block of well-formed lines is parsed in one go; a block with anything odd in it is read line by line, so that
 * one torn row costs its neighbours nothing. Rows that cannot be read are counted, located and left out. Columns are
 * spooled, so that memory does not grow with the file.
 */
final class LogReader
{
    /** Without any of these, lines are figures and nothing else. */
    private const NOT_OF_NUMBERS = "~[^0-9.eE+,\n \t-]~";

    private const BLOCK_BYTES = 131072;
    private const LONGEST_LINE = 1048576;
    private const PLACES_KEPT = 100;

    /** Against gzip bombs: beyond this size a file may unpack to so many times its own. */
    private const SMALL_BYTES = 67_108_864;

    private const MOST_UNPACKED = 120;

    /** @var list<int> index of the CSV column of each kept trace */
    private array $columns = [];

    /** @var list<string> */
    private array $names = [];

    /** @var list<array{float, float}> scale and offset of each kept trace */
    private array $conversions = [];

    /** @var list<string> */
    private array $leftOut = [];

    private int $width = 0;
    private int $timeColumn = 0;
    private float $timeScale = 1.0;
    private Column $times;

    /** @var array<int, Column> per trace */
    private array $spools = [];

    private int $goodRows = 0;

    /** @var array<int, int> readable row => how many unreadable ones stood right before it */
    private array $leftOutBefore = [];

    private int $badCount = 0;

    /** @var list<BadStretch> */
    private array $badPlaces = [];

    private int $line = 0;

    private function __construct(private readonly int $mostBytes, private readonly Dialect $dialect)
    {
        $this->times = Column::spool(8);
    }

    /**
     * @param string                       $path      a CSV, or a gzip of one
     * @param int                          $mostBytes bound on the unpacked size, against gzip bombs
     * @param (\Closure(float): void)|null $progress  told the share read, 0..1, of an unpacked file
     * @param LogPlan|null                 $plan      what its columns are; drawn up by itself when null
     *
     * @throws LogError with a single clear line when the file is no log
     */
    public static function readFile(
        string $path,
        int $mostBytes = 4_294_967_296,
        ?\Closure $progress = null,
        ?LogPlan $plan = null,
    ): FlightLog {
        $plan ??= LogPlan::of($path);

        return (new self($mostBytes, $plan->dialect))->read($path, $progress, $plan);
    }

    private function read(string $path, ?\Closure $progress, LogPlan $plan): FlightLog
    {
        $this->prepare($plan);
        $stream = @gzopen($path, 'rb');
        if (false === $stream) {
            throw LogError::notOpened($path);
        }
        $size = (int) filesize($path);
        try {
            $carry = $this->skipHead($stream);
            $total = \strlen($carry);
            $ended = $overlong = false;
            while (!$ended) {
                $bytes = $this->nextBytes($stream);
                $total += \strlen($bytes);
                $this->bound($total, $size);
                $ended = '' === $bytes;
                if ($overlong && !$ended) {
                    // Nobody needs the rest of a line that long; what comes after it may well be good.
                    $cut = strpos($bytes, "\n");
                    if (false === $cut) {
                        continue;
                    }
                    $bytes = substr($bytes, $cut + 1);
                    $overlong = false;
                }
                $data = $carry.$bytes;
                if ($ended) {
                    $carry = '';
                } else {
                    $cut = strrpos($data, "\n");
                    if (false === $cut) {
                        $carry = $data;
                        if (\strlen($data) > self::LONGEST_LINE) {
                            ++$this->line;
                            $this->bad(Fact::of(BadRowReason::TooLong, mb: 1));
                            $overlong = true;
                            $carry = '';
                        }
                        continue;
                    }
                    $carry = substr($data, $cut + 1);
                    $data = substr($data, 0, $cut);
                }
                $this->block($data, $ended);
                $progress?->__invoke(min(1.0, $total / max(1, $size)));
            }
            $unpacked = (int) gztell($stream);
        } finally {
            gzclose($stream);
        }
        if (GzipEnd::isMissing($path, $unpacked)) {
            $this->breaksOff();
        }

        return $this->finish($plan);
    }

    /** @param int $size of the file */
    private function bound(int $unpacked, int $size): void
    {
        if ($unpacked > $this->mostBytes) {
            throw LogError::tooLarge(intdiv($this->mostBytes, 1_000_000));
        }
        if ($unpacked > self::SMALL_BYTES && $unpacked > self::MOST_UNPACKED * $size) {
            throw LogError::bomb(self::MOST_UNPACKED);
        }
    }

    private function prepare(LogPlan $plan): void
    {
        $time = $plan->timeColumn();
        if (null === $time) {
            throw LogError::noTime($plan->dialect->headerLine, $plan->dialect->header);
        }
        $this->timeColumn = $time;
        $this->timeScale = $plan->units[Traces::TIME]->scale;
        $this->width = \count($plan->dialect->header);
        foreach ($plan->guesses as $guess) {
            if (Traces::TIME === $guess->trace) {
                continue;
            }
            if (null === $guess->trace) {
                $this->leftOut[] = $guess->name;
                continue;
            }
            $this->columns[] = $guess->column;
            $this->names[] = $guess->trace;
            $this->conversions[] = [$plan->units[$guess->trace]->scale, $plan->units[$guess->trace]->offset];
            $this->spools[] = Column::spool(4);
        }
        if ([] === $this->names) {
            throw LogError::noKnownTrace($plan->dialect->headerLine);
        }
        foreach (array_count_values($plan->dialect->header) as $name => $count) {
            if ($count > 1 && null !== Traces::unitOf((string) $name)) {
                throw LogError::namedTwice($plan->dialect->headerLine, (string) $name);
            }
        }
    }

    /** @param resource $stream */
    private function nextBytes($stream): string
    {
        // A torn gzip warns and ends early: what came before is kept, and the end is where it is torn.
        $bytes = @gzread($stream, self::BLOCK_BYTES);

        return false === $bytes ? '' : $bytes;
    }

    /**
     * Goes past the header.
     *
     * @param resource $stream
     *
     * @return string what was read beyond it
     */
    private function skipHead($stream): string
    {
        $data = '';
        while ($this->line < $this->dialect->headerLine) {
            $cut = strpos($data, "\n");
            if (false !== $cut) {
                $data = substr($data, $cut + 1);
                ++$this->line;
                continue;
            }
            $bytes = $this->nextBytes($stream);
            if ('' === $bytes) {
                return '';
            }
            $data .= $bytes;
        }
        if ([] !== $this->dialect->units) {
            while (false === ($cut = strpos($data, "\n"))) {
                $bytes = $this->nextBytes($stream);
                if ('' === $bytes) {
                    return '';
                }
                $data .= $bytes;
            }
            ++$this->line;
            $data = substr($data, $cut + 1);
        }

        return $data;
    }

    private function block(string $data, bool $last): void
    {
        $data = rtrim($this->dialect->plain($data), "\n");
        if ('' === $data) {
            return;
        }
        // Nothing but figures, or each cell is looked at: a word, a list or a map may be sound JSON, and is no number.
        if (0 === preg_match(self::NOT_OF_NUMBERS, $data)) {
            /** @var list<list<float|int>>|null $rows */
            $rows = json_decode('[['.str_replace("\n", '],[', $data).']]', false, 3);
            $widths = null === $rows ? [] : array_unique(array_map('count', $rows));
            if (null !== $rows && 1 === \count($widths) && $this->width === reset($widths) && $this->keep($rows)) {
                $this->line += \count($rows);
                $this->goodRows += \count($rows);

                return;
            }
        }
        // Looked at cell by cell, each of them can be kept.
        $kept = $this->keep($this->lineByLine($data, $last));
        \assert($kept);
    }

    /** @return list<list<float>> */
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
                $this->bad(
                    $last && $n === $end
                        ? Fact::of(BadRowReason::Torn)
                        : Fact::of(BadRowReason::WrongCells, cells: \count($cells), wanted: $this->width),
                );
                continue;
            }
            $row = [];
            foreach ($cells as $i => $cell) {
                if (!is_numeric($cell)) {
                    if ($i === $this->timeColumn || \in_array($i, $this->columns, true)) {
                        $this->bad(Fact::of(BadRowReason::NotANumber, column: $i + 1));
                        continue 2;
                    }
                    $cell = 0;
                }
                $row[] = (float) $cell;
            }
            $beyond = $this->beyond($row);
            if (null !== $beyond) {
                $this->bad(Fact::of(BadRowReason::NotFinite, column: $beyond + 1));
                continue;
            }
            $rows[] = $row;
            ++$this->goodRows;
        }

        return $rows;
    }

    /** The last row that could not be read is torn because the rest of the file is missing; else the next would be. */
    private function breaksOff(): void
    {
        $at = \count($this->badPlaces) - 1;
        if ($at >= 0 && $this->badPlaces[$at]->reason->is(BadRowReason::Torn)) {
            array_pop($this->badPlaces);
            $this->badPlaces[] = new BadStretch($this->line, 1, Fact::of(BadRowReason::BreaksOff));
        } else {
            ++$this->line;
            $this->bad(Fact::of(BadRowReason::BreaksOff));
        }
    }

    private function bad(Fact $reason): void
    {
        ++$this->badCount;
        $this->leftOutBefore[$this->goodRows] = ($this->leftOutBefore[$this->goodRows] ?? 0) + 1;
        $at = \count($this->badPlaces) - 1;
        $longer = $at >= 0 ? $this->badPlaces[$at]->with($this->line, $reason) : null;
        if (null !== $longer) {
            array_pop($this->badPlaces);
            $this->badPlaces[] = $longer;
        } elseif ($at + 1 < self::PLACES_KEPT) {
            $this->badPlaces[] = new BadStretch($this->line, 1, $reason);
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
        foreach ($this->columns as $n => $column) {
            [$scale, $offset] = $this->conversions[$n];
            if (!Cell::fits($row[$column] * $scale + $offset)) {
                return $column;
            }
        }

        return null;
    }

    /**
     * Whether all of them could be kept; if not, none was.
     *
     * @param list<list<float|int>> $rows
     */
    private function keep(array $rows): bool
    {
        if ([] === $rows) {
            return true;
        }
        $packed = [];
        foreach ([-1 => $this->timeColumn] + $this->columns as $n => $column) {
            $values = array_column($rows, $column);
            [$scale, $offset] = -1 === $n ? [$this->timeScale, 0.0] : $this->conversions[$n];
            if (1.0 !== $scale || 0.0 !== $offset) {
                foreach ($values as $i => $v) {
                    $values[$i] = $v * $scale + $offset;
                }
            }
            $packed[$n] = -1 === $n ? pack('e*', ...$values) : pack('g*', ...$values);
            if (-1 === $n || Cell::mayNotFit($packed[$n])) {
                if ([] === $values || !Cell::fits(max($values)) || !Cell::fits(min($values))) {
                    return false;
                }
            }
        }
        foreach ($packed as $n => $bytes) {
            (-1 === $n ? $this->times : $this->spools[$n])->append($bytes);
        }

        return true;
    }

    private function finish(LogPlan $plan): FlightLog
    {
        if (0 === $this->times->count) {
            throw [] === $this->badPlaces ? LogError::noRows() : LogError::noRowReadable($this->badCount, $this->badPlaces[0]);
        }
        $clock = SampleClock::of($this->times, $this->leftOutBefore);
        $columns = [];
        foreach ($this->names as $n => $name) {
            $columns[$name] = $clock->arrange($this->spools[$n]);
            unset($this->spools[$n]);
        }

        return new FlightLog($clock, $columns, $plan->dialect->head, new BadRows($this->badCount, $this->badPlaces), $this->leftOut);
    }
}
