<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\BadRowReason;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Together\Together;

/**
 * Reads any CSV of a flight, plain or gzip, block by block, by a plan of what its columns are. A long plain one is read from its middle
 * at the same time, where two things can be done together; what comes of it is the same.
 *
 * @phpstan-import-type Told from Rows
 */
final readonly class LogReader
{
    private const BLOCK_BYTES = 524288;
    private const LONGEST_LINE = 1048576;

    /** Against gzip bombs: beyond this size a file may unpack to so many times its own. */
    private const SMALL_BYTES = 67_108_864;

    private const MOST_UNPACKED = 120;

    /** A shorter file is read in one go: it takes a tenth of a second or two. */
    private const LEAST_IN_TWO = 2_097_152;

    private function __construct(private string $path, private int $mostBytes, private LogPlan $plan)
    {
    }

    /**
     * @param string                       $path      a CSV, or a gzip of one
     * @param int                          $mostBytes bound on the unpacked size, against gzip bombs
     * @param (\Closure(float): void)|null $progress  told the share read, 0..1, of an unpacked file
     * @param LogPlan|null                 $plan      what its columns are; drawn up by itself when null
     * @param Together|null                $together  how its two halves are read; in one go when null
     *
     * @throws LogError with a single clear line when the file is no log
     */
    public static function readFile(
        string $path,
        int $mostBytes = 4_294_967_296,
        ?\Closure $progress = null,
        ?LogPlan $plan = null,
        ?Together $together = null,
    ): FlightLog {
        return (new self($path, $mostBytes, $plan ?? LogPlan::of($path)))->read($progress, $together);
    }

    private function read(?\Closure $progress, ?Together $together): FlightLog
    {
        $time = $this->timeColumn();
        $names = $this->traces();
        $rows = new Rows($this->plan, $time);
        $middle = null === $together ? null : $this->middle();
        if (null === $together || null === $middle) {
            $this->range($rows, 0, null, $progress);
        } else {
            $this->bound((int) filesize($this->path), (int) filesize($this->path));
            $later = new Rows($this->plan, $time);
            /** @var array{later: Told, rows: Told} $told */
            $told = $together->all([
                'later' => fn (): array => $this->told($later, $middle, null, null),
                'rows' => fn (): array => $this->told($rows, 0, $middle, $progress),
            ]);
            $rows->recall($told['rows']);
            $later->recall($told['later']);
            $rows->follow($later);
        }

        return $this->finished($rows, $names);
    }

    /** @return int which column holds the time */
    private function timeColumn(): int
    {
        return $this->plan->timeColumn() ?? throw LogError::noTime($this->plan->dialect->headerLine, $this->plan->dialect->header);
    }

    /** @return list<string> those that are kept, as Rows has its columns */
    private function traces(): array
    {
        $names = array_keys($this->plan->traces());
        $dialect = $this->plan->dialect;
        if ([] === $names) {
            throw LogError::noKnownTrace($dialect->headerLine);
        }
        foreach (array_count_values($dialect->header) as $name => $count) {
            if ($count > 1 && null !== Traces::unitOf((string) $name)) {
                throw LogError::namedTwice($dialect->headerLine, (string) $name);
            }
        }

        return array_values(array_filter($names, $this->plan->keeps(...)));
    }

    /** @return int|null the first byte of a line in the middle of the file; null where it is not to be read in two */
    private function middle(): ?int
    {
        $size = is_file($this->path) ? (int) filesize($this->path) : 0;
        $stream = $size < self::LEAST_IN_TWO ? false : @fopen($this->path, 'rb');
        if (false === $stream) {
            return null;
        }
        try {
            if (GzipEnd::MAGIC === fread($stream, 2)) {
                return null;
            }
            $from = intdiv($size, 2);
            fseek($stream, $from);
            $cut = strpos((string) stream_get_contents($stream, min(self::LONGEST_LINE, intdiv($size, 4))), "\n");

            return false === $cut ? null : $from + $cut + 1;
        } finally {
            fclose($stream);
        }
    }

    /** @return Told of a part of the file, from one byte to before another, that is read anew */
    private function told(Rows $rows, int $from, ?int $to, ?\Closure $progress): array
    {
        $rows->clear();
        $this->range($rows, $from, $to, $progress);

        return $rows->told();
    }

    /** @param int|null $to before which byte it ends, at the end of a line; null for that of the file */
    private function range(Rows $rows, int $from, ?int $to, ?\Closure $progress): void
    {
        // What is no gzip is read as it is.
        $stream = null === $to && 0 === $from ? @gzopen($this->path, 'rb') : @fopen($this->path, 'rb');
        if (false === $stream) {
            throw LogError::notOpened($this->path);
        }
        try {
            fseek($stream, $from);
            $unpacked = $this->lines($stream, $rows, $from, $to, $progress);
        } finally {
            fclose($stream);
        }
        if (null === $to && GzipEnd::isMissing($this->path, $unpacked)) {
            $rows->breakOff();
        }
    }

    /**
     * @param resource $stream
     *
     * @return int bytes gone through, of what was unpacked
     */
    private function lines($stream, Rows $rows, int $from, ?int $to, ?\Closure $progress): int
    {
        $size = (int) filesize($this->path);
        $carry = 0 === $from ? $this->skipHead($stream, $rows) : '';
        $ended = $overlong = false;
        while (!$ended) {
            $at = (int) ftell($stream);
            $bytes = null !== $to && $at >= $to ? '' : self::nextBytes($stream, null === $to ? self::BLOCK_BYTES : $to - $at);
            $at += \strlen($bytes);
            $this->bound($at, $size);
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
                        $rows->leaveOut(Fact::of(BadRowReason::TooLong, mb: 1));
                        $overlong = true;
                        $carry = '';
                    }
                    continue;
                }
                $carry = substr($data, $cut + 1);
                $data = substr($data, 0, $cut);
            }
            $rows->take($data, $ended && null === $to);
            $progress?->__invoke(min(1.0, ($at - $from) / max(1, ($to ?? $size) - $from)));
        }

        return (int) ftell($stream);
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

    /** @param resource $stream */
    private static function nextBytes($stream, int $most): string
    {
        // A torn gzip warns and ends early: what came before is kept, and the end is where it is torn.
        $bytes = @fread($stream, max(1, min(self::BLOCK_BYTES, $most)));

        return false === $bytes ? '' : $bytes;
    }

    /**
     * Goes past the header.
     *
     * @param resource $stream
     *
     * @return string what was read beyond it
     */
    private function skipHead($stream, Rows $rows): string
    {
        $data = '';
        $lines = $this->plan->dialect->headerLine + ([] !== $this->plan->dialect->units ? 1 : 0);
        for ($line = 0; $line < $lines; ++$line) {
            while (false === ($cut = strpos($data, "\n"))) {
                $bytes = self::nextBytes($stream, self::BLOCK_BYTES);
                if ('' === $bytes) {
                    return '';
                }
                $data .= $bytes;
            }
            $rows->skip(1);
            $data = substr($data, $cut + 1);
        }

        return $data;
    }

    /** @param list<string> $names of its columns */
    private function finished(Rows $rows, array $names): FlightLog
    {
        $bad = $rows->bad();
        if (0 === $rows->times->count) {
            throw [] === $bad->places ? LogError::noRows() : LogError::noRowReadable($bad->count, $bad->places[0]);
        }
        $clock = SampleClock::of($rows->times, $rows->leftOutBefore());
        $columns = [];
        foreach ($rows->columns() as $n => $column) {
            $columns[$names[$n]] = $clock->arrange($column);
        }
        $leftOut = [];
        foreach ($this->plan->guesses as $guess) {
            if (null === $guess->trace) {
                $leftOut[] = $guess->name;
            }
        }

        return new FlightLog($clock, $columns, $this->plan->dialect->head, $bad, $leftOut, array_keys($this->plan->traces()));
    }
}
