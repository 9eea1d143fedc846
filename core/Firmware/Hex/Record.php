<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware\Hex;

use Ortholex\Core\Firmware\Exception\HexError;

/** One record of an Intel HEX file: `:` count, address, type, data, checksum. */
final readonly class Record
{
    /** Count, two of address, type, checksum. */
    private const BYTES_AROUND = 5;

    private function __construct(public RecordType $type, public int $address, public string $data)
    {
    }

    public static function of(RecordType $type, int $address, string $data): self
    {
        return new self($type, $address, $data);
    }

    /**
     * @param string $text without what ends its line
     *
     * @throws HexError with the line, for each way it can be wrong
     */
    public static function parse(string $text, int $line): self
    {
        if (':' !== $text[0]) {
            throw HexError::noColon($line);
        }
        $digits = substr($text, 1);
        if (0 !== \strlen($digits) % 2 || !ctype_xdigit($digits)) {
            throw HexError::noDigits($line);
        }
        $bytes = (string) hex2bin($digits);
        $length = \strlen($bytes);
        if ($length < self::BYTES_AROUND) {
            throw HexError::cutOff($line, $length, self::BYTES_AROUND);
        }
        $count = \ord($bytes[0]);
        if ($length !== $count + self::BYTES_AROUND) {
            throw HexError::countDiffers($line, $count, $length - self::BYTES_AROUND);
        }
        $sum = array_sum((array) unpack('C*', $bytes)) & 0xFF;
        if (0 !== $sum) {
            $given = \ord($bytes[$length - 1]);
            throw HexError::checksum($line, $given, ($given - $sum) & 0xFF);
        }
        $type = RecordType::tryFrom(\ord($bytes[3])) ?? throw HexError::unknownType($line, \ord($bytes[3]));
        $wanted = $type->length();
        if (null !== $wanted && $wanted !== $count) {
            throw RecordType::End === $type
                ? HexError::endCarriesData($line, $count)
                : HexError::length($line, strtolower((string) preg_replace('~(?<!^)[A-Z]~', ' $0', $type->name)), $wanted, $count);
        }

        return new self($type, (\ord($bytes[1]) << 8) | \ord($bytes[2]), substr($bytes, 4, $count));
    }

    /** The data as one number, the most significant byte first. */
    public function number(): int
    {
        return (int) hexdec(bin2hex($this->data));
    }

    public function toText(): string
    {
        $bytes = pack('CnC', \strlen($this->data), $this->address, $this->type->value).$this->data;
        $sum = array_sum((array) unpack('C*', $bytes));

        return ':'.strtoupper(bin2hex($bytes.\chr(-$sum & 0xFF)));
    }
}
