<?php

declare(strict_types=1);

namespace Ortholex\Demo;

use Ortholex\Bench\Board\FirmwareLabel;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\IntelHex;

/** Makes the shelf: images of Loam for every board, as Intel HEX with their manifests beside them. */
final readonly class ShelfMaker
{
    private const RELEASES = [
        ['4.0.3', '2025-08-02', 'The last of the old filters: one gyro low-pass, one D low-pass.'],
        ['4.1.2', '2026-01-17', 'Filter stages by path. Settings filter.gyro_hz and filter.d_hz were renamed.'],
        ['4.2.1', '2026-06-05', 'Idle in percent, link-loss hold in seconds. Gains can rise as the pack sags.'],
        ['4.3.0', '2026-10-20', 'Gains fall with throttle by a new law; D narrowed to 0–8; the link-loss tone setting is gone. Fixes a late first notch after arming.'],
        ['4.4.0-pre1', '2026-11-14', 'For trial only: a new estimator for the tracking notches.'],
    ];
    private const BUILDS = ['' => [], 'no-gps' => ['gps'], 'no-overlay' => ['overlay']];

    /** Writes what is missing into $folder; a second run finds all there and does nothing. */
    public static function fill(string $folder): int
    {
        if (!is_dir($folder)) {
            mkdir($folder, 0o775, true);
        }
        $made = 0;
        foreach (Scenario::boards() as $board) {
            foreach (self::RELEASES as [$version, $date, $notes]) {
                foreach (self::BUILDS as $build => $leftOut) {
                    if ('' !== $build && !\in_array($version, ['4.2.1', '4.3.0'], true)) {
                        continue;
                    }
                    $name = strtolower("loam-$version-$board->hardwareId".('' === $build ? '' : "-$build"));
                    if (is_file("$folder/$name.json")) {
                        continue;
                    }
                    $image = self::image($board->hardwareId, $version, $build, $board->flashFrom, 'F4' === $board->processor ? 236 : 312);
                    file_put_contents("$folder/$name.hex", IntelHex::write($image));
                    file_put_contents("$folder/$name.json", (string) json_encode([
                        'product' => 'Loam', 'version' => $version, 'hardware' => [$board->hardwareId], 'board' => $board->name, 'processor' => $board->processor,
                        'flash_from' => $board->flashFrom, 'flash_end' => $board->flashEnd, 'left_out' => $leftOut, 'sha256' => $image->sha256(), 'date' => $date, 'notes' => $notes,
                    ], \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR));
                    ++$made;
                }
            }
        }

        return $made;
    }

    public static function image(string $hardwareId, string $version, string $build, int $flashFrom, int $kilobytes): HexImage
    {
        // Machine code looks random but is not: a keyed stream, thinned so that it packs like code.
        $stream = '';
        for ($i = 0; \strlen($stream) < $kilobytes * 1024; ++$i) {
            $part = hash('sha512', "$hardwareId/$version/$build/$i", true);
            $stream .= 0 === $i % 5 ? str_repeat($part[0].$part[1], 40) : $part;
        }
        $stream = substr($stream, 0, $kilobytes * 1024 - \strlen($build));
        $vectors = substr(hash('sha512', "vectors/$hardwareId", true).str_repeat("\0", FirmwareLabel::OFFSET), 0, FirmwareLabel::OFFSET);

        return HexImage::of([$flashFrom => $vectors.FirmwareLabel::encode($hardwareId, $version, $stream).$stream], $flashFrom + 4);
    }
}
