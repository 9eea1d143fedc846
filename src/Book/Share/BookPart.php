<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Share;

use Ortholex\App\Book\Craft;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** What a family keeps of a craft, as files of its book; see docs/book-format.md. */
#[AutoconfigureTag]
interface BookPart
{
    public function write(Craft $craft, BookWriter $book): void;

    /** Whether reading it takes long, and goes on while the rest of the book can be used already. */
    public function isLong(): bool;

    /**
     * What can be read is put into the craft, what cannot is told to the book with its reason; nothing is thrown for what a file holds.
     */
    public function read(Craft $craft, BookReader $book): void;
}
