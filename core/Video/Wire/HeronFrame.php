<?php

declare(strict_types=1);

namespace Ortholex\Core\Video\Wire;

use Ortholex\Core\Radio\Protocol\Crc8;

/**
 * A frame of the half-duplex line of a Heron: 5A, length of the payload, verb (+ 0x80 in an answer, 0xFF for no), payload, CRC-8 (0xD5)
 * from the length on. docs/link.md.
 */
final readonly class HeronFrame
{
    public const BAUD = 9600;
    private const SYNC = "\x5A";
    private const ANSWER = 0x80;
    private const NO = 0xFF;

    private function __construct(public int $kind, public string $payload)
    {
    }

    public static function ask(HeronVerb $verb, string $payload = ''): string
    {
        return self::bytes($verb->value, $payload);
    }

    public static function answer(HeronVerb $verb, string $payload = ''): string
    {
        return self::bytes($verb->value | self::ANSWER, $payload);
    }

    public static function no(): string
    {
        return self::bytes(self::NO, '');
    }

    /** The first whole frame; null for none. */
    public static function in(string $bytes): ?self
    {
        for ($at = strpos($bytes, self::SYNC); false !== $at; $at = strpos($bytes, self::SYNC, $at + 1)) {
            $n = \ord($bytes[$at + 1] ?? "\0");
            $body = substr($bytes, $at + 1, 2 + $n);
            if (\strlen($body) === 2 + $n && \ord($bytes[$at + 3 + $n] ?? "\0") === Crc8::of($body) && isset($bytes[$at + 3 + $n])) {
                return new self(\ord($body[1]), substr($body, 2));
            }
        }

        return null;
    }

    public function asks(): ?HeronVerb
    {
        return HeronVerb::tryFrom($this->kind);
    }

    public function answers(HeronVerb $verb): bool
    {
        return $this->kind === ($verb->value | self::ANSWER);
    }

    private static function bytes(int $kind, string $payload): string
    {
        $body = \chr(\strlen($payload)).\chr($kind).$payload;

        return self::SYNC.$body.\chr(Crc8::of($body));
    }
}
