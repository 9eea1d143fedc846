<?php

declare(strict_types=1);

namespace Ortholex\Bench\Esc;

use Ortholex\Bench\Flash\FlashFile;

/**
 * The label of an ESC image: what hardware it was built for, and a CRC over the rest, by which the ESC knows that it is whole.
 *
 * At offset 0x40: "ESCF", length and CRC-32 of everything after the label, then strings with a length byte; 96 bytes in all.
 */
final readonly class EscLabel
{
    public const OFFSET = 0x40;
    public const BYTES = 96;

    private function __construct(
        public string $family,
        public string $version,
        public string $layout,
        public int $clockMhz,
        public int $deadTimeNs,
        public int $switchingKhz,
    ) {
    }

    /** @param list<string> $fields family, version, layout, clock, dead time, switching frequency */
    public static function encode(array $fields, string $rest): string
    {
        $bytes = 'ESCF'.pack('VV', \strlen($rest), crc32($rest));
        foreach ($fields as $field) {
            $bytes .= \chr(\strlen($field)).$field;
        }

        return str_pad($bytes, self::BYTES, "\0");
    }

    /** Null when the flash holds no whole firmware. */
    public static function read(FlashFile $flash): ?self
    {
        $bytes = $flash->read(self::OFFSET, self::BYTES);
        if (!str_starts_with($bytes, 'ESCF') || \strlen($bytes) < self::BYTES) {
            return null;
        }
        /** @var array{length: int, crc: int} $head */
        $head = unpack('Vlength/Vcrc', $bytes, 4);
        $rest = $flash->read(self::OFFSET + self::BYTES, $head['length']);
        if (\strlen($rest) !== $head['length'] || crc32($rest) !== $head['crc']) {
            return null;
        }
        $fields = [];
        for ($at = 12; \count($fields) < 6; $at += 1 + \strlen($fields[\count($fields) - 1])) {
            $fields[] = substr($bytes, $at + 1, \ord($bytes[$at]));
        }

        return new self(
            $fields[0],
            $fields[1],
            $fields[2],
            FirstClocks::mhz((int) $fields[3]),
            (int) $fields[4],
            FirstClocks::khz((int) $fields[5]),
        );
    }
}
