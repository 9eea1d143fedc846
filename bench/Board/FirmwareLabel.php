<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\State\FirstNumbering;
use Ortholex\Core\Firmware\Version;

/**
 * The label that a Loam image carries at a fixed place, by which a board knows what it runs, and the CRC over the
 * rest, by which it knows that it is whole.
 *
 * At offset 0x200: "LOAM", length (32 bit), CRC-32 of everything after the label, then hardware id, version and what the build leaves
 * out, as strings with a length byte; 64 bytes in all.
 */
final readonly class FirmwareLabel
{
    public const OFFSET = 0x200;
    public const BYTES = 64;

    /** @param list<string> $leftOut */
    private function __construct(public string $hardwareId, public Version $version, public array $leftOut)
    {
    }

    /** @param list<string> $leftOut what the build leaves out */
    public static function encode(string $hardwareId, string $version, string $rest, array $leftOut = []): string
    {
        $bytes =
            'LOAM'.
            pack('VV', \strlen($rest), crc32($rest)).
            \chr(\strlen($hardwareId)).
            $hardwareId.
            \chr(\strlen($version)).
            $version.
            \chr(\strlen(implode(',', $leftOut))).
            implode(',', $leftOut);

        return str_pad($bytes, self::BYTES, "\0");
    }

    /** Null when the flash holds no whole firmware. */
    public static function read(FlashFile $flash): ?self
    {
        $bytes = $flash->read(self::OFFSET, self::BYTES);
        if (!str_starts_with($bytes, 'LOAM') || \strlen($bytes) < self::BYTES) {
            return null;
        }
        /** @var array{length: int, crc: int} $head */
        $head = unpack('Vlength/Vcrc', $bytes, 4);
        $rest = $flash->read(self::OFFSET + self::BYTES, $head['length']);
        if (\strlen($rest) !== $head['length'] || crc32($rest) !== $head['crc']) {
            return null;
        }
        $idLength = \ord($bytes[12]);
        $id = substr($bytes, 13, $idLength);
        $versionLength = \ord($bytes[13 + $idLength]);
        $version = FirstNumbering::now(substr($bytes, 14 + $idLength, $versionLength));
        $at = 14 + $idLength + $versionLength;
        $leftOut = substr($bytes, $at + 1, \ord($bytes[$at]));

        return new self($id, Version::parse($version), '' === $leftOut ? [] : explode(',', $leftOut));
    }
}
