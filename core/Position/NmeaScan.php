<?php

declare(strict_types=1);

namespace Ortholex\Core\Position;

/** Sentences found in bytes: NMEA 0183, `$…*HH` with the exclusive-or of all between as checksum. */
final readonly class NmeaScan
{
    private function __construct(public int $whole, public int $broken, public int $bytes)
    {
    }

    public static function of(string $bytes): self
    {
        $whole = $broken = 0;
        preg_match_all('~\$([^$*\r\n]{3,82})\*([0-9A-F]{2})?~', $bytes, $found, \PREG_SET_ORDER);
        foreach ($found as $one) {
            ($one[2] ?? '') === self::checksum($one[1]) ? ++$whole : ++$broken;
        }

        return new self($whole, $broken, \strlen($bytes));
    }

    /** Two hexadecimal digits over what stands between `$` and `*`. */
    public static function checksum(string $body): string
    {
        $sum = 0;
        foreach (str_split($body) as $byte) {
            $sum ^= \ord($byte);
        }

        return \sprintf('%02X', $sum);
    }
}
