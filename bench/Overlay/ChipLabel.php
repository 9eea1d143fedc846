<?php

declare(strict_types=1);

namespace Ortholex\Bench\Overlay;

use Ortholex\Bench\Flash\FlashFile;

/**
 * The label of firmware for an overlay chip, by which its bootloader knows that it is whole and for its kind. At offset 0x20: "SCRY",
 * length and CRC-32 of everything after the label, then kind and version with a length byte each; 48 bytes in all.
 */
final readonly class ChipLabel
{
    public const OFFSET = 0x20;
    public const BYTES = 48;

    private function __construct(public string $kind, public string $version)
    {
    }

    public static function encode(string $kind, string $version, string $rest): string
    {
        $fields = \chr(\strlen($kind)).$kind.\chr(\strlen($version)).$version;

        return str_pad('SCRY'.pack('VV', \strlen($rest), crc32($rest)).$fields, self::BYTES, "\0");
    }

    /** Null when the flash holds no whole firmware. */
    public static function read(FlashFile $flash): ?self
    {
        $bytes = $flash->read(self::OFFSET, self::BYTES);
        if (!str_starts_with($bytes, 'SCRY') || \strlen($bytes) < self::BYTES) {
            return null;
        }
        /** @var array{length: int, crc: int} $head */
        $head = unpack('Vlength/Vcrc', $bytes, 4);
        $rest = $flash->read(self::OFFSET + self::BYTES, min($head['length'], ScryChip::FIRMWARE_END));
        if (\strlen($rest) !== $head['length'] || crc32($rest) !== $head['crc']) {
            return null;
        }
        $kind = substr($bytes, 13, \ord($bytes[12]));
        $at = 13 + \strlen($kind);

        return new self($kind, substr($bytes, $at + 1, \ord($bytes[$at])));
    }
}
