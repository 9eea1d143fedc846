<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** A file is not a log that can be read, or a log does not hold what was asked of it; says what, where and what to do. */
final class LogError extends \RuntimeException
{
    private function __construct(string $message, public readonly ?BadStretch $firstBad = null)
    {
        parent::__construct($message);
    }

    /** For causes above core. */
    public static function of(string $message): self
    {
        return new self($message);
    }

    public static function noTrace(string $name): self
    {
        return new self("The log has no trace $name.");
    }

    public static function noFile(string $path): self
    {
        return new self("There is no readable file at $path.");
    }

    public static function notOpened(string $path): self
    {
        return new self("The file $path could not be opened.");
    }

    public static function empty(): self
    {
        return new self('The file is empty: no header line was found.');
    }

    public static function binary(int $line): self
    {
        return new self("Line $line holds binary bytes, so this is no CSV of a log.");
    }

    public static function firstLineTooLong(int $kilobytes): self
    {
        return new self("The first line is longer than $kilobytes KB, so this is no CSV of a log.");
    }

    public static function noHeader(): self
    {
        return new self(
            'No header line with the names of columns was found. '.
                'A log is a CSV whose first lines name its columns, one of them the time.',
        );
    }

    public static function tooManyColumns(int $line, int $columns, int $most): self
    {
        return new self("The header on line $line names $columns columns; at most $most are read.");
    }

    /** @param list<string> $header */
    public static function noTime(int $line, array $header): self
    {
        return new self(
            "The header on line $line has no column that is a time, so the samples have none. ".
                'Say which it is, as in --map "COLUMN=time_s". The columns are: '.implode(', ', \array_slice($header, 0, 40)).'.',
        );
    }

    public static function noKnownTrace(int $line): self
    {
        return new self(
            "The header on line $line names no trace that is known. ".
                'Say what its columns are, as in --map "COLUMN=rate_measured_roll_dps"; docs/log-format.md has the names.',
        );
    }

    public static function namedTwice(int $line, string $name): self
    {
        return new self("The header on line $line names $name twice.");
    }

    /** @param list<string> $header */
    public static function noColumn(string $name, ?string $trace, array $header): self
    {
        return new self(
            "There is no column “{$name}” to be “{$trace}”. The columns are: ".implode(', ', \array_slice($header, 0, 60)).'.',
        );
    }

    public static function unknownUnit(string $trace, string $unit): self
    {
        return self::of("“{$unit}” is no unit that {$trace} can be read in. docs/log-format.md lists them.");
    }

    public static function unknownTrace(string $trace): self
    {
        return new self("“{$trace}” is no trace. docs/log-format.md has their names.");
    }

    public static function motorsMiscounted(int $named, int $columns): self
    {
        return new self("$named motors were named, but the log has $columns columns of motor output.");
    }

    public static function tooLarge(int $megabytes): self
    {
        return new self("The file unpacks to more than $megabytes MB. Cut it, or raise the limit.");
    }

    public static function bomb(int $times): self
    {
        return new self("The file unpacks to more than $times times its size, which no flight log does. It was not read further.");
    }

    public static function noRows(): self
    {
        return new self('The file has a header but no rows.');
    }

    /** @param BadStretch $first whose reason is put into words above */
    public static function noRowReadable(int $rows, BadStretch $first): self
    {
        return new self("None of the $rows rows could be read; line {$first->line} is the first.", $first);
    }

    public static function timeStands(): self
    {
        return new self('The time column never moves forward, so no sample rate can be found.');
    }

    public static function tooFast(float $periodS): self
    {
        return new self(
            \sprintf('The time column has a sample every %.3g s, which no recorder writes. ', $periodS).
                'Is it in another unit than its name says?',
        );
    }

    public static function noSamples(): self
    {
        return new self('The log has no readable rows.');
    }

    public static function nothingBetween(float $fromS, float $toS, float $startS, float $endS): self
    {
        return new self(
            \sprintf('Nothing was logged from %g to %g s; the log goes from %.3f to %.3f s.', $fromS, $toS, $startS, $endS),
        );
    }

    public static function noTemporaryFile(string $folder): self
    {
        return new self("No temporary file could be opened. Check the space and permissions of $folder.");
    }

    public static function temporaryFolderFull(string $folder): self
    {
        return new self("The temporary folder $folder is full. Make room, and try again.");
    }
}
