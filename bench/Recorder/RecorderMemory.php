<?php

declare(strict_types=1);

namespace Ortholex\Bench\Recorder;

use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Bench\Storage\NotKept;

/**
 * The memory for logs on a board: a recording after the other, each a file of its own here, until it is full. It keeps them without
 * power. What a flight that was broken off has written is there, torn where it ended.
 */
final readonly class RecorderMemory
{
    /** Numbers go on after an erasure, so that a recording is never taken for another. */
    private const NEXT = 'next';

    /** @param int $bytes how much it holds; 0 where a board has none */
    public function __construct(private string $folder, public int $bytes)
    {
    }

    /** @return array<int, int> bytes of each recording by its number, oldest first */
    public function recordings(): array
    {
        $all = [];
        foreach (glob("$this->folder/*.rec") ?: [] as $path) {
            $all[(int) basename($path, '.rec')] = (int) @filesize($path);
        }
        ksort($all);

        return $all;
    }

    public function free(): int
    {
        clearstatcache();

        return max(0, $this->bytes - array_sum($this->recordings()));
    }

    /** @return int number of a new recording */
    public function begin(): int
    {
        if (!is_dir($this->folder) && !@mkdir($this->folder, 0o775, true) && !is_dir($this->folder)) {
            throw NotKept::noPlace($this->folder);
        }
        $counter = new DurableFile("$this->folder/".self::NEXT);
        $number = max((int) $counter->read(), (int) array_key_last($this->recordings()) + 1, 1);
        $counter->write((string) ($number + 1), false);
        if (!@touch($this->path($number))) {
            throw NotKept::noPlace($this->path($number));
        }

        return $number;
    }

    /**
     * @return bool false once it is full: of what did not fit nothing is kept
     *
     * @throws NotKept when the disk behind it takes no more
     */
    public function append(int $number, string $page): bool
    {
        if (\strlen($page) > $this->free()) {
            return false;
        }
        $file = @fopen($this->path($number), 'ab') ?: throw NotKept::noPlace($this->path($number));
        $written = DurableFile::all($file, $page);
        $whole = @fflush($file) && $written === \strlen($page);
        fclose($file);

        return $whole ?: throw NotKept::short($this->path($number), $written, \strlen($page));
    }

    /** '' beyond its end, and for one there is not. */
    public function read(int $number, int $at, int $length): string
    {
        return (string) @file_get_contents($this->path($number), offset: max(0, $at), length: max(0, $length));
    }

    /** All of it: a memory of this kind forgets no single recording. */
    public function erase(): void
    {
        foreach (array_keys($this->recordings()) as $number) {
            @unlink($this->path($number));
        }
    }

    private function path(int $number): string
    {
        return \sprintf('%s/%06d.rec', $this->folder, $number);
    }
}
