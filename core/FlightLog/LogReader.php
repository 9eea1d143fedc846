<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/**
 * Reads our own CSV (docs/log-format.md), plain or gzip, block by block.
 *
 * A block of well-formed lines is parsed in one go; a block with anything odd in it is read line by line, so that
 * one torn row costs its neighbours nothing. Rows that cannot be read are counted, located and left out.
 */
final class LogReader
{
    private const BLOCK_BYTES = 262144;
    private const LONGEST_LINE = 1048576;
    private const MOST_COLUMNS = 400;
    private const PLACES_KEPT = 100;

    /** @var list<int> index of the CSV column of each kept trace */
    private array $columns = [];

    /** @var list<string> */
    private array $names = [];

    /** @var list<string> */
    private array $leftOut = [];

    private int $width = 0;
    private int $timeColumn = 0;

    /** @var list<string> packed float64 time blocks */
    private array $timeBlocks = [];

    /** @var list<list<string>> per trace, packed float32 blocks */
    private array $blocks = [];

    private int $goodRows = 0;

    /** @var array<int, int> readable row => how many unreadable ones stood right before it */
    private array $leftOutBefore = [];

    private int $badCount = 0;

    /** @var list<array{line: int, count: int, reason: string}> */
    private array $badPlaces = [];

    private int $line = 0;

    private function __construct(private readonly int $mostBytes)
    {
    }

    /**
     * @param string                $path      a CSV, or a gzip of one
     * @param int                   $mostBytes bound on the unpacked size, against gzip bombs
     * @param (\Closure(float): void)|null $progress told the share read, 0..1, of an unpacked file
     *
     * @throws LogError with a single clear line when the file is no log
     */
    public static function readFile(string $path, int $mostBytes = 4_294_967_296, ?\Closure $progress = null): FlightLog
    {
        return (new self($mostBytes))->read($path, $progress);
    }

    private function read(string $path, ?\Closure $progress): FlightLog
    {
        if (!is_file($path) || !is_readable($path)) {
            throw LogError::of("There is no readable file at $path.");
        }
        $stream = @gzopen($path, 'rb');
        if (false === $stream) {
            throw LogError::of("The file $path could not be opened.");
        }
        $size = (int) filesize($path);
        try {
            [$settings, $carry] = $this->head($stream);
            $total = \strlen($carry);
            $ended = false;
            while (!$ended) {
                $bytes = $this->nextBytes($stream);
                $total += \strlen($bytes);
                if ($total > $this->mostBytes) {
                    throw LogError::of(\sprintf('The file unpacks to more than %d MB. Cut it, or raise the limit.', intdiv($this->mostBytes, 1_000_000)));
                }
                $ended = '' === $bytes;
                $data = $carry.$bytes;
                if ($ended) {
                    $carry = '';
                } else {
                    $cut = strrpos($data, "\n");
                    if (false === $cut) {
                        if (\strlen($data) > self::LONGEST_LINE) {
                            throw LogError::of(\sprintf('Line %d is longer than 1 MB, so this is no CSV of a log.', $this->line + 1));
                        }
                        $carry = $data;
                        continue;
                    }
                    $carry = substr($data, $cut + 1);
                    $data = substr($data, 0, $cut);
                }
                $this->block($data, $ended);
                if (null !== $progress && $size > 0) {
                    $progress(min(1.0, $total / $size));
                }
            }
        } finally {
            gzclose($stream);
        }

        return $this->finish($settings);
    }

    /** @param resource $stream */
    private function nextBytes($stream): string
    {
        // A torn gzip warns and ends early: what came before is kept, and the end is where it is torn.
        $bytes = @gzread($stream, self::BLOCK_BYTES);

        return false === $bytes ? '' : $bytes;
    }

    /**
     * Reads comment lines and the header.
     *
     * @param resource $stream
     *
     * @return array{string, string} the settings that stood ahead, and what was read past the header
     */
    private function head($stream): array
    {
        $data = '';
        $settings = '';
        while (true) {
            while (false !== $cut = strpos($data, "\n")) {
                $line = rtrim(substr($data, 0, $cut), "\r");
                $data = substr($data, $cut + 1);
                if ($this->headLine($line, $settings)) {
                    return [$settings, $data];
                }
            }
            if (\strlen($data) > self::LONGEST_LINE) {
                throw LogError::of('The first line is longer than 1 MB, so this is no CSV of a log.');
            }
            $bytes = $this->nextBytes($stream);
            if ('' === $bytes) {
                if ('' !== $data && $this->headLine(rtrim($data, "\r"), $settings)) {
                    return [$settings, ''];
                }
                throw LogError::of('The file is empty: no header line was found.');
            }
            $data .= $bytes;
        }
    }

    private function headLine(string $line, string &$settings): bool
    {
        ++$this->line;
        if (1 === $this->line && str_starts_with($line, "\xEF\xBB\xBF")) {
            $line = substr($line, 3);
        }
        if ('' === trim($line)) {
            return false;
        }
        if (str_starts_with($line, '#')) {
            $settings .= (string) preg_replace('~^# ?~', '', $line)."\n";

            return false;
        }
        if (1 === preg_match('~[\x00-\x08\x0E-\x1F]~', $line)) {
            throw LogError::of("Line $this->line holds binary bytes, so this is no CSV of a log.");
        }
        $names = array_map(static fn (string $n): string => trim($n, " \t\""), explode(',', $line));
        if (\count($names) > self::MOST_COLUMNS) {
            throw LogError::of(\sprintf('The header on line %d names %d columns; at most %d are read.', $this->line, \count($names), self::MOST_COLUMNS));
        }
        $time = array_search('time_s', $names, true);
        if (false === $time) {
            throw LogError::of("The header on line $this->line has no column time_s, so the samples have no time. Expected the names of docs/log-format.md.");
        }
        $this->timeColumn = $time;
        $this->width = \count($names);
        foreach ($names as $i => $name) {
            if ($i === $time) {
                continue;
            }
            if (null === Traces::unitOf($name)) {
                $this->leftOut[] = $name;
            } elseif (\in_array($name, $this->names, true)) {
                throw LogError::of("The header on line $this->line names $name twice.");
            } else {
                $this->columns[] = $i;
                $this->names[] = $name;
                $this->blocks[] = [];
            }
        }
        if ([] === $this->names) {
            throw LogError::of("The header on line $this->line names no trace that is known. Expected the names of docs/log-format.md.");
        }

        return true;
    }

    private function block(string $data, bool $last): void
    {
        if (str_contains($data, "\r")) {
            $data = str_replace("\r", '', $data);
        }
        $data = rtrim($data, "\n");
        if ('' === $data) {
            return;
        }
        /** @var list<list<float|int>>|null $rows */
        $rows = json_decode('[['.str_replace("\n", '],[', $data).']]', false, 3);
        if (null !== $rows) {
            $widths = array_unique(array_map('count', $rows));
            if (1 === \count($widths) && $this->width === reset($widths)) {
                $this->line += \count($rows);
                $this->goodRows += \count($rows);
                $this->keep($rows);

                return;
            }
        }
        $this->keep($this->lineByLine($data, $last));
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
                $this->bad($last && $n === $end ? 'torn at the end of the file' : \sprintf('%d cells instead of %d', \count($cells), $this->width));
                continue;
            }
            $row = [];
            foreach ($cells as $i => $cell) {
                if (!is_numeric($cell)) {
                    if ($i === $this->timeColumn || \in_array($i, $this->columns, true)) {
                        $this->bad('column '.($i + 1).' is not a number');
                        continue 2;
                    }
                    $cell = 0;
                }
                $value = (float) $cell;
                if (!is_finite($value)) {
                    $this->bad('column '.($i + 1).' is not finite');
                    continue 2;
                }
                $row[] = $value;
            }
            $rows[] = $row;
            ++$this->goodRows;
        }

        return $rows;
    }

    private function bad(string $reason): void
    {
        ++$this->badCount;
        $this->leftOutBefore[$this->goodRows] = ($this->leftOutBefore[$this->goodRows] ?? 0) + 1;
        $at = \count($this->badPlaces) - 1;
        if ($at >= 0 && $this->badPlaces[$at]['reason'] === $reason && $this->badPlaces[$at]['line'] + $this->badPlaces[$at]['count'] === $this->line) {
            ++$this->badPlaces[$at]['count'];
        } elseif ($at + 1 < self::PLACES_KEPT) {
            $this->badPlaces[] = ['line' => $this->line, 'count' => 1, 'reason' => $reason];
        }
    }

    /** @param list<list<float|int>> $rows */
    private function keep(array $rows): void
    {
        if ([] === $rows) {
            return;
        }
        foreach (array_chunk($rows, 8192) as $part) {
            $this->timeBlocks[] = pack('e*', ...array_column($part, $this->timeColumn));
            foreach ($this->columns as $n => $column) {
                $this->blocks[$n][] = pack('g*', ...array_column($part, $column));
            }
        }
    }

    private function finish(string $settings): FlightLog
    {
        if ([] === $this->timeBlocks) {
            throw LogError::of(0 === $this->badCount ? 'The file has a header but no rows.' : "None of the $this->badCount rows could be read: ".$this->badPlaces[0]['reason'].' in line '.$this->badPlaces[0]['line'].'.');
        }
        /** @var array<int, float> $times */
        $times = unpack('e*', implode('', $this->timeBlocks));
        $this->timeBlocks = [];
        $clock = SampleClock::fromTimes(array_values($times), $this->leftOutBefore);
        $rows = \count($times);
        unset($times);
        $asIs = $clock->samples === $rows && 1 === \count($clock->segments);
        $packed = [];
        foreach ($this->names as $n => $name) {
            $bytes = implode('', $this->blocks[$n]);
            $this->blocks[$n] = [];
            $packed[$name] = $asIs ? $bytes : FlightLog::packFloats($clock->arrange(FlightLog::unpackFloats($bytes)));
        }

        return new FlightLog($clock, $packed, $settings, new BadRows($this->badCount, $this->badPlaces), $this->leftOut);
    }
}
