<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio;

/** A file that is no capture of a wire or of sticks; says what, in which line, and what is expected. */
final class RadioFileError extends \RuntimeException
{
    public static function noFile(string $path): self
    {
        return new self("There is no readable file at $path.");
    }

    public static function noSuchReading(): self
    {
        return new self('radio reads “identify” or “spans” out of a capture.');
    }

    /** @param list<string> $wanted */
    public static function noHeader(string $path, array $wanted): self
    {
        return new self("$path has no line that names its columns. It must have ".implode(', ', $wanted).'.');
    }

    public static function notANumber(int $line, string $column, string $given): self
    {
        return new self("Line $line: $column is “{$given}”, which is no number.");
    }

    public static function level(int $line, string $given): self
    {
        return new self("Line $line: a level is 0 or 1, not “{$given}”.");
    }

    public static function backwards(int $line, float $from, float $to): self
    {
        return new self(\sprintf('Line %d: time goes back from %g to %g. Rows must stand in the order of their time.', $line, $from, $to));
    }

    public static function noRows(string $path): self
    {
        return new self("$path names its columns, and holds no row of them.");
    }

    public static function binary(int $line): self
    {
        return new self("Line $line holds binary bytes, so this is no CSV.");
    }

    public static function torn(string $path): self
    {
        return new self("$path is a torn gzip file: it ends in the middle. Pack or copy it again.");
    }
}
