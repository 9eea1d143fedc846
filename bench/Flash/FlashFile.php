<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flash;

use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Bench\Storage\NotKept;

/** The program memory of a board: a file of its size, 0xFF where erased. */
final readonly class FlashFile
{
    public function __construct(private string $path, private int $bytes)
    {
        if (!is_file($path)) {
            if (!is_dir(\dirname($path))) {
                mkdir(\dirname($path), 0o775, true);
            }
            (new DurableFile($path))->write(str_repeat("\xFF", $bytes));
        }
    }

    public function read(int $offset, int $length): string
    {
        if ($offset < 0 || $offset >= $this->bytes) {
            return '';
        }

        return (string) file_get_contents($this->path, false, null, $offset, max(0, min($length, $this->bytes - $offset)));
    }

    public function write(int $offset, string $bytes): void
    {
        $file = @fopen($this->path, 'c+b') ?: throw NotKept::noPlace($this->path);
        fseek($file, $offset);
        // The file has its full size from the beginning: a page never asks for more room than there is.
        $written = DurableFile::all($file, $bytes);
        $kept = @fflush($file);
        fclose($file);
        if ($written !== \strlen($bytes) || !$kept) {
            throw NotKept::short($this->path, $written, \strlen($bytes));
        }
    }
}
