<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Share;

/** A file is no book that can be read, or one cannot be written; the message says why, and what to do. */
final class BookError extends \RuntimeException
{
    public static function of(string $why): self
    {
        return new self($why);
    }
}
