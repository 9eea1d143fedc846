<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

use Ortholex\Core\Firmware\Exception\HexError;
use Ortholex\Core\Firmware\Hex\HexReading;
use Ortholex\Core\Firmware\Hex\Record;
use Ortholex\Core\Firmware\Hex\RecordType;

/** Reads and writes Intel HEX (Intel Hexadecimal Object File Format Specification, revision A, 1988). */
final readonly class IntelHex
{
    /** Twice the largest flash there is, written out in digits. */
    private const MOST_MB = 24;

    private const BYTES_A_RECORD = 16;

    /** Digits of the longest record there can be, with its colon and the space and line end that may follow. */
    private const LONGEST_LINE = 600;

    private const MOST_LINES = 2_000_000;

    /**
     * @param string $text lines of records; a trailing carriage return or blank line is allowed
     *
     * @throws HexError with the line number for each way a record can be wrong
     */
    public static function parse(string $text): HexImage
    {
        self::demandSize(\strlen($text));

        return self::read(self::linesOf($text));
    }

    /**
     * The same of a file, line by line: however large, it is never held whole.
     *
     * @throws HexError
     */
    public static function ofFile(string $path): HexImage
    {
        clearstatcache(true, $path);
        self::demandSize((int) @filesize($path));

        return self::read(self::linesIn($path));
    }

    private static function demandSize(int $bytes): void
    {
        if ($bytes > self::MOST_MB << 20) {
            throw HexError::tooLarge(self::MOST_MB);
        }
    }

    /** @param iterable<string> $lines */
    private static function read(iterable $lines): HexImage
    {
        $reading = new HexReading();
        $line = 0;
        foreach ($lines as $raw) {
            if (++$line > self::MOST_LINES) {
                throw HexError::tooManyLines(self::MOST_LINES);
            }
            if (\strlen($raw) > self::LONGEST_LINE) {
                throw HexError::lineTooLong($line, self::LONGEST_LINE);
            }
            $record = rtrim($raw, "\r\n \t");
            if ('' === $record) {
                continue;
            }
            if (null !== $reading->ended()) {
                throw HexError::afterEnd($line, $reading->ended());
            }
            $reading->take(Record::parse($record, $line), $line);
        }
        if (null === $reading->ended()) {
            throw HexError::noEnd($line);
        }

        return $reading->image();
    }

    /** @return iterable<string> at most a little longer than a line may be */
    private static function linesOf(string $text): iterable
    {
        for ($from = 0, $end = \strlen($text); $from < $end; $from = $to + 1) {
            $found = strpos($text, "\n", $from);
            $to = false === $found ? $end : $found;
            yield substr($text, $from, min($to - $from, self::LONGEST_LINE + 1));
        }
    }

    /** @return iterable<string> */
    private static function linesIn(string $path): iterable
    {
        $file = @fopen($path, 'rb');
        if (false === $file) {
            return;
        }
        try {
            while (false !== ($line = fgets($file, self::LONGEST_LINE + 2))) {
                yield $line;
            }
        } finally {
            fclose($file);
        }
    }

    /** Writes 16 data bytes a record, extended linear addresses as needed, the entry point if known, and the end record. */
    public static function write(HexImage $image): string
    {
        $out = [];
        $upper = 0;
        foreach ($image->blocks as $address => $bytes) {
            for ($i = 0, $n = \strlen($bytes); $i < $n; $i += $count) {
                $at = $address + $i;
                if ($at >> 16 !== $upper) {
                    $upper = $at >> 16;
                    $out[] = Record::of(RecordType::ExtendedLinearAddress, 0, pack('n', $upper))->toText();
                }
                $count = min(self::BYTES_A_RECORD, $n - $i, 0x10000 - ($at & 0xFFFF));
                $out[] = Record::of(RecordType::Data, $at & 0xFFFF, substr($bytes, $i, $count))->toText();
            }
        }
        if (null !== $image->entry) {
            $out[] = Record::of(RecordType::StartLinearAddress, 0, pack('N', $image->entry))->toText();
        }
        $out[] = Record::of(RecordType::End, 0, '')->toText();

        return implode("\n", $out)."\n";
    }
}
