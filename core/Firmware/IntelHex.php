<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

/** Reads and writes Intel HEX (Intel Hexadecimal Object File Format Specification, revision A, 1988). */
final readonly class IntelHex
{
    private const MOST_BYTES = 67_108_864;
    private const MOST_SPAN = 67_108_864;

    /**
     * @param string $text lines of records; a trailing carriage return or blank line is allowed
     *
     * @throws FirmwareError with the line number for each way a record can be wrong
     */
    public static function parse(string $text): HexImage
    {
        if (\strlen($text) > self::MOST_BYTES) {
            throw FirmwareError::of('The file is larger than 64 MB, which no flash image is.');
        }
        $base = 0;
        $runs = [];
        $lineOf = [];
        $start = null;
        $expected = null;
        $entry = null;
        $ended = null;
        $line = 0;
        foreach (explode("\n", $text) as $raw) {
            ++$line;
            $record = rtrim($raw, "\r \t");
            if ('' === $record) {
                continue;
            }
            if (null !== $ended) {
                throw FirmwareError::of("Line $line: a record follows the end record of line $ended.");
            }
            if (':' !== $record[0]) {
                throw FirmwareError::of("Line $line: a record must begin with a colon; this line does not.");
            }
            $digits = substr($record, 1);
            if (0 !== \strlen($digits) % 2 || !ctype_xdigit($digits)) {
                throw FirmwareError::of("Line $line: after the colon there must be pairs of hexadecimal digits only.");
            }
            $bytes = (string) hex2bin($digits);
            $length = \strlen($bytes);
            if ($length < 5) {
                throw FirmwareError::of("Line $line: the record is cut off; it has $length of at least 5 bytes.");
            }
            $count = \ord($bytes[0]);
            if ($length !== $count + 5) {
                throw FirmwareError::of(\sprintf('Line %d: the record says %d data bytes but carries %d.', $line, $count, $length - 5));
            }
            $sum = array_sum((array) unpack('C*', $bytes)) & 0xFF;
            if (0 !== $sum) {
                throw FirmwareError::of(
                    \sprintf(
                        'Line %d: checksum 0x%02X is wrong; the bytes call for 0x%02X.',
                        $line,
                        \ord($bytes[$length - 1]),
                        (\ord($bytes[$length - 1]) - $sum) & 0xFF,
                    ),
                );
            }
            $address = (\ord($bytes[1]) << 8) | \ord($bytes[2]);
            $type = \ord($bytes[3]);
            $data = substr($bytes, 4, $count);
            switch ($type) {
                case 0:
                    if (0 === $count) {
                        break;
                    }
                    if ($address + $count > 0x10000) {
                        throw FirmwareError::of(
                            \sprintf(
                                'Line %d: the data run past the end of their 64 KB segment, from 0x%04X for %d bytes.',
                                $line,
                                $address,
                                $count,
                            ),
                        );
                    }
                    $absolute = $base + $address;
                    if ($absolute === $expected && null !== $start) {
                        $runs[$start][] = $data;
                    } else {
                        $start = $absolute;
                        if (isset($runs[$start])) {
                            throw FirmwareError::of(
                                \sprintf('Line %d: address 0x%08X was already given in line %d.', $line, $absolute, $lineOf[$start]),
                            );
                        }
                        $runs[$start] = [$data];
                        $lineOf[$start] = $line;
                    }
                    $expected = $absolute + $count;
                    break;
                case 1:
                    if (0 !== $count) {
                        throw FirmwareError::of("Line $line: an end record carries no data; this one has $count bytes.");
                    }
                    $ended = $line;
                    break;
                case 2:
                    self::demandLength($line, 'an extended segment address', $count, 2);
                    $base = ((\ord($data[0]) << 8) | \ord($data[1])) << 4;
                    break;
                case 3:
                    self::demandLength($line, 'a start segment address', $count, 4);
                    $entry = (((\ord($data[0]) << 8) | \ord($data[1])) << 4) + ((\ord($data[2]) << 8) | \ord($data[3]));
                    break;
                case 4:
                    self::demandLength($line, 'an extended linear address', $count, 2);
                    $base = ((\ord($data[0]) << 8) | \ord($data[1])) << 16;
                    break;
                case 5:
                    self::demandLength($line, 'a start linear address', $count, 4);
                    $entry = (\ord($data[0]) << 24) | (\ord($data[1]) << 16) | (\ord($data[2]) << 8) | \ord($data[3]);
                    break;
                default:
                    throw FirmwareError::of(\sprintf('Line %d: record type 0x%02X is none of 00 to 05.', $line, $type));
            }
        }
        if (null === $ended) {
            throw FirmwareError::of('The end record is missing after line '.($line - 1).', so the file is cut off. Fetch it again.');
        }
        if ([] === $runs) {
            throw FirmwareError::of('The file holds no data records.');
        }

        return self::assemble($runs, $lineOf, $entry);
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
                    $out[] = self::record(0, 4, pack('n', $upper));
                }
                $count = min(16, $n - $i, 0x10000 - ($at & 0xFFFF));
                $out[] = self::record($at & 0xFFFF, 0, substr($bytes, $i, $count));
            }
        }
        if (null !== $image->entry) {
            $out[] = self::record(0, 5, pack('N', $image->entry));
        }
        $out[] = self::record(0, 1, '');

        return implode("\n", $out)."\n";
    }

    private static function record(int $address, int $type, string $data): string
    {
        $bytes = pack('CnC', \strlen($data), $address, $type).$data;
        $sum = array_sum((array) unpack('C*', $bytes));

        return ':'.strtoupper(bin2hex($bytes.\chr(-$sum & 0xFF)));
    }

    private static function demandLength(int $line, string $what, int $count, int $wanted): void
    {
        if ($count !== $wanted) {
            throw FirmwareError::of("Line $line: $what carries $wanted bytes; this one has $count.");
        }
    }

    /**
     * @param array<int, list<string>> $runs
     * @param array<int, int>          $lineOf first line of each run
     */
    private static function assemble(array $runs, array $lineOf, ?int $entry): HexImage
    {
        ksort($runs);
        $blocks = [];
        $end = null;
        foreach ($runs as $address => $parts) {
            if (null !== $end && $address < $end) {
                throw FirmwareError::of(
                    \sprintf(
                        'Line %d: the data at 0x%08X overlap data given elsewhere, which reach to 0x%08X.',
                        $lineOf[$address],
                        $address,
                        $end - 1,
                    ),
                );
            }
            $blocks[$address] = implode('', $parts);
            $end = $address + \strlen($blocks[$address]);
        }
        if ($end - array_key_first($blocks) > self::MOST_SPAN) {
            throw FirmwareError::of(
                \sprintf('The data are scattered over %d MB of addresses, which no flash has.', ($end - array_key_first($blocks)) >> 20),
            );
        }

        return HexImage::of($blocks, $entry);
    }
}
