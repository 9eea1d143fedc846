<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** Cyclic check of eight bits with the polynomial 0xD5, begun at 0: any one or two flipped bits, and any burst up to eight, show. */
final readonly class Crc8
{
    public static function of(string $bytes): int
    {
        $crc = 0;
        for ($i = 0, $n = \strlen($bytes); $i < $n; ++$i) {
            $crc ^= \ord($bytes[$i]);
            for ($bit = 0; $bit < 8; ++$bit) {
                $crc = 0 !== ($crc & 0x80) ? (($crc << 1) ^ 0xD5) & 0xFF : ($crc << 1) & 0xFF;
            }
        }

        return $crc;
    }
}
