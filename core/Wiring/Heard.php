<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

use Ortholex\Core\Position\NmeaScan;
use Ortholex\Core\Radio\Protocol\Crc8;

/** What was heard on a UART, judged: silence, rubbish, or a part that speaks and is understood. */
final readonly class Heard
{
    private const SYNC = "\x5A";

    private function __construct(public Hearing $verdict, public int $whole, public int $bytes)
    {
    }

    public static function of(string $bytes, PartRole $role): self
    {
        if ('' === $bytes) {
            return new self(Hearing::Silent, 0, 0);
        }
        $whole = PartRole::Gps === $role ? NmeaScan::of($bytes)->whole : self::frames($bytes);

        return new self($whole > 0 ? Hearing::Understood : Hearing::Rubbish, $whole, \strlen($bytes));
    }

    /** One frame as serial parts send them: sync, length of the rest, payload, CRC-8 (polynomial 0xD5) over the payload. */
    public static function frame(string $payload): string
    {
        return self::SYNC.\chr(\strlen($payload) + 1).$payload.\chr(Crc8::of($payload));
    }

    private static function frames(string $bytes): int
    {
        $whole = 0;
        for ($at = 0, $n = \strlen($bytes); $at < $n; ++$at) {
            if (self::SYNC !== $bytes[$at]) {
                continue;
            }
            $length = $at + 1 < $n ? \ord($bytes[$at + 1]) : 0;
            if (
                $length > 1
                && $at + 2 + $length <= $n
                && \ord($bytes[$at + 1 + $length]) === Crc8::of(substr($bytes, $at + 2, $length - 1))
            ) {
                ++$whole;
                $at += 1 + $length;
            }
        }

        return $whole;
    }
}
