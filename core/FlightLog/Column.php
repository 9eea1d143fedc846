<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\Signal\Floats;

/** Numbers of one kind, little-endian, in memory or spooled to a file that goes with the object. */
final class Column
{
    /** Samples taken from the file at once by who keeps only a part of them: a flight may be an hour long. */
    private const PIECE = 65_536;

    /** Four megabytes: memory is not to grow with the log. */
    private const MOST_HELD = 250_000;

    /** Pieces joined at once. */
    private const MOST_JOINED = 32;

    /** @var list<float>|null all of them, where they are held */
    private ?array $values = null;

    /** The process that opened the file: another one that shares it would move its place, and opens it anew. */
    private int $owner;

    /**
     * @param resource|null $stream
     * @param 4|8           $size   bytes of a number
     */
    private function __construct(private string $bytes, private $stream, public int $count, private readonly int $size)
    {
        $this->owner = (int) getmypid();
    }

    /** Float32 in memory. */
    public static function ofBytes(string $bytes): self
    {
        return new self($bytes, null, intdiv(\strlen($bytes), 4), 4);
    }

    /**
     * Empty, to be appended to.
     *
     * @param 4|8 $size bytes of a number
     */
    public static function spool(int $size): self
    {
        $stream = tmpfile();
        if (false === $stream) {
            throw LogError::noTemporaryFile(sys_get_temp_dir());
        }

        return new self('', $stream, 0, $size);
    }

    public function append(string $bytes): void
    {
        if (null === $this->stream) {
            $this->bytes .= $bytes;
        } else {
            fseek($this->stream, 0, \SEEK_END);
            if (fwrite($this->stream, $bytes) !== \strlen($bytes)) {
                throw LogError::temporaryFolderFull(sys_get_temp_dir());
            }
        }
        $this->count += intdiv(\strlen($bytes), $this->size);
    }

    /** Nothing of a spooled one is kept. */
    public function clear(): void
    {
        if (null !== $this->stream) {
            ftruncate($this->stream, 0);
        }
        $this->bytes = '';
        $this->count = 0;
    }

    /** What another one holds is put behind, piece by piece. */
    public function follow(self $later): void
    {
        foreach ($later->pieces(1, 0, null) as $bytes) {
            $this->append($bytes);
        }
    }

    /** So many stand in its file by now: another process, which shares it, appended them. */
    public function holds(int $count): void
    {
        $this->count = $count;
    }

    public function bytes(int $first = 0, ?int $count = null): string
    {
        $count = max(0, min($count ?? $this->count, $this->count - $first));
        if (null === $this->stream) {
            return 0 === $first && $count === $this->count
                ? $this->bytes
                : substr($this->bytes, $this->size * $first, $this->size * $count);
        }
        if (0 === $count) {
            return '';
        }
        $stream = $this->own();
        fseek($stream, $this->size * $first);

        return (string) stream_get_contents($stream, $this->size * $count);
    }

    /** @return resource */
    private function own()
    {
        \assert(null !== $this->stream);
        $now = (int) getmypid();
        if ($now !== $this->owner) {
            $stream = fopen(stream_get_meta_data($this->stream)['uri'] ?? '', 'rb');
            $this->stream = false !== $stream ? $stream : throw LogError::noTemporaryFile(sys_get_temp_dir());
            $this->owner = $now;
        }

        return $this->stream;
    }

    /** The same for those who go through it again and again: unpacked once and held, where that is not too much. */
    public function held(): self
    {
        if ($this->count > self::MOST_HELD) {
            return $this;
        }
        $held = new self($this->bytes(), null, $this->count, $this->size);
        $held->values = $this->values();

        return $held;
    }

    /** @return list<float> */
    public function values(int $first = 0, ?int $count = null): array
    {
        if (null !== $this->values) {
            return \array_slice($this->values, $first, max(0, $count ?? $this->count - $first));
        }

        return $this->floats()->unpack($this->bytes($first, $count));
    }

    /**
     * The same with so many samples averaged into one; what is left over at the end is left out.
     *
     * @return list<float>
     */
    public function decimated(int $factor, int $first = 0, ?int $count = null): array
    {
        if ($factor <= 1) {
            return $this->values($first, $count);
        }
        $means = fn (string $bytes): array => $this->floats()->means($bytes, $factor);

        return $this->joined($means, $factor, $first, $count);
    }

    /** @return list<float> the first and each so many further on */
    public function each(int $step, int $first = 0, ?int $count = null): array
    {
        if ($step <= 1) {
            return $this->values($first, $count);
        }
        $each = fn (string $bytes): array => $this->floats()->each($bytes, $step);

        return $this->joined($each, $step, $first, $count);
    }

    /**
     * @param \Closure(string): list<float> $of what is made of a piece
     *
     * @return list<float> of all of them, one behind the other
     */
    private function joined(\Closure $of, int $times, int $first, ?int $count): array
    {
        $parts = [];
        $values = [];
        foreach ($this->pieces($times, $first, $count) as $bytes) {
            $parts[] = $of($bytes);
            // To join all at once is quicker, and takes twice the room: never that of a long flight.
            if (\count($parts) >= self::MOST_JOINED) {
                array_push($values, ...array_merge(...$parts));
                $parts = [];
            }
        }

        $last = array_merge(...$parts);
        if ([] === $values) {
            return $last;
        }
        array_push($values, ...$last);

        return $values;
    }

    /** @return \Generator<string> bytes of stretches of so many times a number, not too long, but for the last */
    private function pieces(int $times, int $first, ?int $count): \Generator
    {
        $length = $times * max(1, intdiv(self::PIECE, $times));
        $end = $first + max(0, min($count ?? $this->count, $this->count - $first));
        for ($from = $first; $from < $end; $from += $length) {
            yield $this->bytes($from, min($length, $end - $from));
        }
    }

    private function floats(): Floats
    {
        return Floats::of($this->size);
    }
}
