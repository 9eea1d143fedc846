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
    private const MOST_MB = 64;
    private const BYTES_A_RECORD = 16;

    /**
     * @param string $text lines of records; a trailing carriage return or blank line is allowed
     *
     * @throws HexError with the line number for each way a record can be wrong
     */
    public static function parse(string $text): HexImage
    {
        if (\strlen($text) > self::MOST_MB << 20) {
            throw HexError::tooLarge(self::MOST_MB);
        }
        $reading = new HexReading();
        $line = 0;
        foreach (explode("\n", $text) as $raw) {
            ++$line;
            $record = rtrim($raw, "\r \t");
            if ('' === $record) {
                continue;
            }
            if (null !== $reading->ended()) {
                throw HexError::afterEnd($line, $reading->ended());
            }
            $reading->take(Record::parse($record, $line), $line);
        }
        if (null === $reading->ended()) {
            throw HexError::noEnd($line - 1);
        }

        return $reading->image();
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
