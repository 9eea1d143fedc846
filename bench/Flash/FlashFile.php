<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flash;

/** The program memory of a board: a file of its size, 0xFF where erased. */
final readonly class FlashFile
{
    public function __construct(private string $path, private int $bytes)
    {
        if (!is_file($path)) {
            if (!is_dir(\dirname($path))) {
                mkdir(\dirname($path), 0o775, true);
            }
            file_put_contents($path, str_repeat("\xFF", $bytes));
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
        $file = fopen($this->path, 'c+b') ?: throw new \RuntimeException("The bench flash $this->path cannot be written.");
        fseek($file, $offset);
        fwrite($file, $bytes);
        fclose($file);
    }
}
