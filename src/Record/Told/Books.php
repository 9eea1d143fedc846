<?php

declare(strict_types=1);

namespace Ortholex\App\Record\Told;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookError;
use Ortholex\App\Book\Share\BookExport;
use Ortholex\App\Book\Share\BookImport;
use Ortholex\App\Book\Share\ShareChoice;

/** Books out and in, told as the command line tells. */
final readonly class Books
{
    public function __construct(private BookExport $export, private BookImport $import)
    {
    }

    /**
     * @return string|array<string, mixed>
     *
     * @throws BookError when it cannot be written
     */
    public function out(Craft $craft, string $path, ShareChoice $choice, bool $json): string|array
    {
        if (file_exists($path)) {
            throw BookError::of("$path is there already. Name another file, or remove it first.");
        }
        $this->export->write($craft, $path, $choice);
        $told = ['craft' => $craft->slug, 'file' => $path, 'bytes' => (int) filesize($path), 'left_out' => $choice->leftOut()];
        $left = [] === $told['left_out'] ? '' : '; left out: '.implode(', ', $told['left_out']);

        return $json ? $told : "{$craft->name}: {$told['bytes']} bytes into $path$left\n";
    }

    /**
     * @return string|array<string, mixed>
     *
     * @throws BookError when it is no book
     */
    public function in(string $path, bool $json): string|array
    {
        $book = $this->import->open($path);
        $craft = $this->import->craft($book);
        $this->import->read($craft, $book, true);
        if ($json) {
            return ['craft' => $craft->slug, 'taken' => $book->taken, 'left' => $book->left];
        }
        $text = "$craft->slug: {$craft->name}\n";
        foreach ($book->taken as $what => $number) {
            $text .= \sprintf("  %5d  %s\n", $number, $what);
        }
        foreach ($book->left as $file => $why) {
            $text .= "  not taken: $file: $why\n";
        }

        return $text;
    }
}
