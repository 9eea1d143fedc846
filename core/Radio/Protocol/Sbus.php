<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** SBUS: 25 bytes, 0F, sixteen channels, flags (bit 2 frame lost, bit 3 failsafe), 00; µs = 0.625·v + 880. */
final readonly class Sbus
{
    public const BYTES = 25;
    private const LOST = 0x04;
    private const FAILSAFE = 0x08;

    public static function encode(RadioFrame $frame): string
    {
        $values = array_map(self::value(...), array_pad($frame->channelsUs, RadioFrame::CHANNELS, 1500.0));

        return "\x0F".
            Bits::pack($values).
            \chr(($frame->lost ? self::LOST : 0) | ($frame->failsafe ? self::FAILSAFE : 0)).
            "\x00";
    }

    /** Null for what is no whole frame. */
    public static function decode(string $bytes): ?RadioFrame
    {
        if (self::BYTES !== \strlen($bytes) || "\x0F" !== $bytes[0] || "\x00" !== $bytes[24]) {
            return null;
        }
        $flags = \ord($bytes[23]);
        // The upper half of the flags is kept at nought; what has it set is a frame only by chance.
        if ($flags > 0x0F) {
            return null;
        }
        $channels = array_map(self::us(...), Bits::unpack(substr($bytes, 1, Bits::BYTES)));

        return new RadioFrame($channels, 0 !== ($flags & self::LOST), 0 !== ($flags & self::FAILSAFE));
    }

    public static function us(int $value): float
    {
        return 0.625 * $value + 880;
    }

    public static function value(float $us): int
    {
        return max(0, min(Bits::MOST, (int) round(($us - 880) / 0.625)));
    }
}
