<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware\Exception;

use Ortholex\Core\Firmware\FirmwareError;

/** Text that is no sound Intel HEX; each way it can be wrong says the line. */
final class HexError extends FirmwareError
{
    public static function tooLarge(int $megabytes): self
    {
        return new self("The file is larger than $megabytes MB, which no flash image is.");
    }

    public static function tooManyLines(int $most): self
    {
        return new self("Line $most: the file goes on for more lines than any flash image has.");
    }

    public static function lineTooLong(int $line, int $most): self
    {
        return new self("Line $line: it is longer than $most characters, which no record is.");
    }

    public static function inPieces(int $line, int $most): self
    {
        return new self("Line $line: the data are in more than $most pieces that do not follow on from each other; no image is.");
    }

    public static function afterEnd(int $line, int $ended): self
    {
        return new self("Line $line: a record follows the end record of line $ended.");
    }

    public static function noColon(int $line): self
    {
        return new self("Line $line: a record must begin with a colon; this line does not.");
    }

    public static function noDigits(int $line): self
    {
        return new self("Line $line: after the colon there must be pairs of hexadecimal digits only.");
    }

    public static function cutOff(int $line, int $bytes, int $least): self
    {
        return new self("Line $line: the record is cut off; it has $bytes of at least $least bytes.");
    }

    public static function countDiffers(int $line, int $says, int $carries): self
    {
        return new self("Line $line: the record says $says data bytes but carries $carries.");
    }

    public static function checksum(int $line, int $given, int $right): self
    {
        return new self(\sprintf('Line %d: checksum 0x%02X is wrong; the bytes call for 0x%02X.', $line, $given, $right));
    }

    public static function pastSegment(int $line, int $address, int $count): self
    {
        return new self(
            \sprintf('Line %d: the data run past the end of their 64 KB segment, from 0x%04X for %d bytes.', $line, $address, $count),
        );
    }

    public static function addressTwice(int $line, int $address, int $first): self
    {
        return new self(\sprintf('Line %d: address 0x%08X was already given in line %d.', $line, $address, $first));
    }

    public static function endCarriesData(int $line, int $count): self
    {
        return new self("Line $line: an end record carries no data; this one has $count bytes.");
    }

    public static function length(int $line, string $record, int $wanted, int $count): self
    {
        return new self("Line $line: the $record carries $wanted bytes; this one has $count.");
    }

    public static function unknownType(int $line, int $type): self
    {
        return new self(\sprintf('Line %d: record type 0x%02X is none of 00 to 05.', $line, $type));
    }

    public static function noEnd(int $last): self
    {
        return new self("The end record is missing after line $last, so the file is cut off. Fetch it again.");
    }

    public static function noData(): self
    {
        return new self('The file holds no data records.');
    }

    public static function overlap(int $line, int $address, int $until): self
    {
        return new self(
            \sprintf('Line %d: the data at 0x%08X overlap data given elsewhere, which reach to 0x%08X.', $line, $address, $until),
        );
    }

    public static function blocksOverlap(int $address): self
    {
        return new self(\sprintf('Two blocks overlap at 0x%08X.', $address));
    }

    public static function scattered(int $megabytes): self
    {
        return new self("The data are scattered over $megabytes MB of addresses, which no flash has.");
    }
}
