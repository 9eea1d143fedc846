<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Share;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

/** A whole book as one file. */
final readonly class BookExport
{
    /** @param iterable<BookPart> $parts */
    public function __construct(#[TaggedIterator(BookPart::class)] private iterable $parts)
    {
    }

    /** @throws BookError when it cannot be written; no file is left then */
    public function write(Craft $craft, string $path, ShareChoice $choice): void
    {
        $book = new BookWriter($path, $choice);
        try {
            foreach ($this->parts as $part) {
                $part->write($craft, $book);
            }
        } catch (\Throwable $e) {
            $book->discard();
            throw $e;
        }
        $book->close(['name' => $choice->names ? $craft->name : 'Craft', 'kind' => $craft->kind]);
    }
}
