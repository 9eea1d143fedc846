<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** Sixteen numbers of eleven bits in twenty-two bytes, the least bit first: the packing that both serial protocols share. */
final readonly class Bits
{
    public const BYTES = 22;
    public const MOST = 2047;

    /** @param list<int> $values sixteen, 0 to 2047 */
    public static function pack(array $values): string
    {
        $out = '';
        $held = $bits = 0;
        foreach ($values as $value) {
            $held |= ($value & self::MOST) << $bits;
            for ($bits += 11; $bits >= 8; $bits -= 8) {
                $out .= \chr($held & 0xFF);
                $held >>= 8;
            }
        }

        return $out;
    }

    /** @return list<int> sixteen, 0 to 2047 */
    public static function unpack(string $bytes): array
    {
        $out = [];
        $held = $bits = 0;
        for ($i = 0; $i < self::BYTES; ++$i) {
            $held |= \ord($bytes[$i]) << $bits;
            $bits += 8;
            if ($bits >= 11) {
                $out[] = $held & self::MOST;
                $held >>= 11;
                $bits -= 11;
            }
        }

        return $out;
    }
}
