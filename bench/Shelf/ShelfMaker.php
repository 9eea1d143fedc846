<?php

declare(strict_types=1);

namespace Ortholex\Bench\Shelf;

use Ortholex\Bench\Board\FirmwareLabel;
use Ortholex\Bench\Esc\EscLabel;
use Ortholex\Bench\Esc\EscModel;
use Ortholex\Bench\Overlay\ChipLabel;
use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Core\Drive\SwitchingTrade;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Core\Parts\PartsCatalogue;

/** Makes the shelf: images of Loam for every board, as Intel HEX with their manifests beside them. */
final readonly class ShelfMaker
{
    private const RELEASES = [
        ['25.02', '2025-02-18', 'The last of the old filters: one gyro low-pass, one D low-pass.'],
        ['25.08', '2025-08-02', 'Filter stages by path; the two filter settings of before were renamed. Gains can rise as the pack sags.'],
        ['26.01', '2026-01-17', 'Idle in percent, link-loss hold in seconds, as the older ones were in thousandths.'],
        [
            '26.06',
            '2026-06-05',
            'Gains fall with throttle by a new law; D narrowed to 0–8; the link-loss tone setting is gone. '.
                'Fixes a late first notch after arming.',
        ],
        ['26.10-pre1', '2026-10-24', 'For trial only: a new estimator for the tracking notches.'],
    ];
    private const BUILDS = ['' => [], 'no-gps' => ['gps'], 'no-overlay' => ['overlay'], 'crsf-only' => ['sbus', 'ppm']];
    private const ESC_RELEASES = [
        [
            'Bracken',
            '6.2.0',
            '2023-03-11',
            'The older family: no rpm feedback, few settings. Kept for boards that know nothing else.',
            [20],
        ],
        ['Withy', '1.1.0', '2024-09-30', 'First of the family: power cut on sync loss, limits, chirp.', [20]],
        ['Withy', '1.2.3', '2025-06-18', 'Rpm feedback on the signal wire, so that notches can follow the motors.', [20, 40]],
        ['Withy', '1.4.0', '2026-08-02', 'Calmer starts with heavy props; 80 kHz where the processor has the steps for it.', [20, 40, 80]],
        ['Withy', '1.5.0-pre1', '2026-11-01', 'For trial only: another way of following the rotor at low speed.', [40]],
    ];

    /** Make, pin layout, processor clock in MHz and dead time in ns of every ESC that images are made for. */
    private const ESC_HARDWARE = [
        ['Osier 20', 'K7', 64, 350],
        ['Osier 20', 'K7', 32, 400],
        ['Osier 45', 'P3', 64, 250],
        ['Osier 45', 'P3', 64, 400],
    ];

    /** Kind, version, date, notes. */
    private const CHIPS = [
        ['Scry', '1.3', '2025-05-20', 'For Loam before 26.01.'],
        ['Scry', '2.0', '2026-01-17', 'Letters in the order of Loam 26.01.'],
        ['Scry', '2.1', '2026-06-05', 'For Loam from 26.06; also draws for 26.01.'],
        ['Scry D', '2.0', '2026-01-17', 'The digital sister; letters in the order of Loam 26.01.'],
        ['Scry D', '2.1', '2026-06-05', 'The digital sister, for Loam from 26.06; also draws for 26.01.'],
    ];

    /** Images of overlay chips, in a folder of their own; made where they are missing. */
    public static function fillChips(string $folder): int
    {
        if (!is_dir($folder)) {
            mkdir($folder, 0o775, true);
        }
        $made = 0;
        foreach (self::CHIPS as [$kind, $version, $date, $notes]) {
            $name = self::chipName($kind, $version);
            if (is_file("$folder/$name.json")) {
                continue;
            }
            $image = self::chipImage($kind, $version);
            self::put("$folder/$name.hex", IntelHex::write($image));
            $told = ['product' => $kind, 'version' => $version, 'sha256' => $image->sha256(), 'date' => $date, 'notes' => $notes];
            self::put(
                "$folder/$name.json",
                (string) json_encode($told, \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR),
            );
            ++$made;
        }

        return $made;
    }

    public static function chipName(string $kind, string $version): string
    {
        return strtolower(str_replace(' ', '-', $kind)."-$version");
    }

    public static function chipImage(string $kind, string $version): HexImage
    {
        $stream = '';
        for ($i = 0; \strlen($stream) < 7 * 1024; ++$i) {
            $stream .= hash('sha512', "$kind/$version/$i", true);
        }
        $vectors = substr(hash('sha512', "vectors/$kind/$version", true), 0, ChipLabel::OFFSET);

        return HexImage::of([0 => $vectors.ChipLabel::encode($kind, $version, $stream).$stream], 0);
    }

    /** ESC images beside those of boards, in a folder of their own; made where they are missing. */
    public static function fillEscs(string $folder): int
    {
        if (!is_dir($folder)) {
            mkdir($folder, 0o775, true);
        }
        $made = 0;
        self::removeFirst($folder);
        foreach (self::ESC_HARDWARE as [$make, $layout, $clock, $dead]) {
            foreach (self::ESC_RELEASES as [$family, $version, $date, $notes, $frequencies]) {
                foreach ($frequencies as $khz) {
                    if (SwitchingTrade::steps($clock, $khz) < SwitchingTrade::LEAST_STEPS) {
                        continue;
                    }
                    $image = self::escImage($family, $version, $layout, $clock, $dead, $khz);
                    $name = self::escName($make, $family, $version, $image);
                    if (is_file("$folder/$name.json")) {
                        continue;
                    }
                    self::put("$folder/$name.hex", IntelHex::write($image));
                    self::put(
                        "$folder/$name.json",
                        (string) json_encode(
                            [
                                'product' => $family,
                                'version' => $version,
                                'layout' => $layout,
                                'clock_mhz' => $clock,
                                'dead_time_ns' => $dead,
                                'switching_khz' => $khz,
                                'rpm_feedback' => 'Withy' === $family && '1.1.0' !== $version,
                                'sha256' => $image->sha256(),
                                'date' => $date,
                                'notes' => $notes,
                            ],
                            \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR,
                        ),
                    );
                    ++$made;
                }
            }
        }

        return $made;
    }

    /** A file is named by the make of the ESC, the release, and the beginning of its hash. */
    public static function escName(string $make, string $family, string $version, HexImage $image): string
    {
        return strtolower(str_replace(' ', '-', $make)."-$family-$version-".substr($image->sha256(), 0, 8));
    }

    /** Images of the first days were for hardware by other figures, and named otherwise. */
    private static function removeFirst(string $folder): void
    {
        foreach (glob("$folder/*.json") ?: [] as $file) {
            if (1 === preg_match('~-(24|48)-\d+-(24|48|96)\.json$~', $file)) {
                unlink($file);
                @unlink(substr($file, 0, -5).'.hex');
            }
        }
    }

    public static function escImage(
        string $family,
        string $version,
        string $layout,
        int $clockMhz,
        int $deadTimeNs,
        int $khz,
        int $bytes = 11 * 1024,
    ): HexImage {
        $seed = "$family/$version/$layout/$clockMhz/$deadTimeNs/$khz";
        $stream = '';
        for ($i = 0; \strlen($stream) < $bytes; ++$i) {
            $stream .= hash('sha512', "$seed/$i", true);
        }
        $vectors = substr(hash('sha512', "vectors/$seed", true), 0, EscLabel::OFFSET);

        return HexImage::of(
            [
                EscModel::FLASH_FROM => $vectors.
                    EscLabel::encode([$family, $version, $layout, (string) $clockMhz, (string) $deadTimeNs, (string) $khz], $stream).
                    $stream,
            ],
            EscModel::FLASH_FROM,
        );
    }

    /** Writes what is missing into $folder; a second run finds all there and does nothing. */
    public static function fill(string $folder): int
    {
        if (!is_dir($folder)) {
            mkdir($folder, 0o775, true);
        }
        // Images of Loam under its first numbers, which these replace.
        foreach (glob("$folder/loam-4.*") ?: [] as $old) {
            unlink($old);
        }
        $made = 0;
        foreach (PartsCatalogue::shipped()->boards as $board) {
            foreach (self::RELEASES as [$version, $date, $notes]) {
                foreach (self::BUILDS as $build => $leftOut) {
                    if ('' !== $build && !\in_array($version, ['26.01', '26.06'], true)) {
                        continue;
                    }
                    $name = strtolower("loam-$version-$board->id".('' === $build ? '' : "-$build"));
                    if (is_file("$folder/$name.json")) {
                        continue;
                    }
                    $image = self::image(
                        $board->id,
                        $version,
                        $build,
                        $board->flashFrom,
                        'F4' === $board->processor ? 236 : 312,
                        $leftOut,
                    );
                    self::put("$folder/$name.hex", IntelHex::write($image));
                    self::put(
                        "$folder/$name.json",
                        (string) json_encode(
                            [
                                'product' => 'Loam',
                                'version' => $version,
                                'hardware' => [$board->id],
                                'board' => $board->name,
                                'processor' => $board->processor,
                                'flash_from' => $board->flashFrom,
                                'flash_end' => $board->flashEnd,
                                'left_out' => $leftOut,
                                'sha256' => $image->sha256(),
                                'date' => $date,
                                'notes' => $notes,
                            ],
                            \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR,
                        ),
                    );
                    ++$made;
                }
            }
        }

        return $made;
    }

    /** @param list<string> $leftOut */
    public static function image(
        string $hardwareId,
        string $version,
        string $build,
        int $flashFrom,
        int $kilobytes,
        array $leftOut = [],
    ): HexImage {
        // Machine code looks random but is not: a keyed stream, thinned so that it packs like code.
        $stream = '';
        for ($i = 0; \strlen($stream) < $kilobytes * 1024; ++$i) {
            $part = hash('sha512', "$hardwareId/$version/$build/$i", true);
            $stream .= 0 === $i % 5 ? str_repeat($part[0].$part[1], 40) : $part;
        }
        $stream = substr($stream, 0, $kilobytes * 1024 - \strlen($build));
        $vectors = substr(hash('sha512', "vectors/$hardwareId", true).str_repeat("\0", FirmwareLabel::OFFSET), 0, FirmwareLabel::OFFSET);

        return HexImage::of(
            [$flashFrom => $vectors.FirmwareLabel::encode($hardwareId, $version, $stream, $leftOut).$stream],
            $flashFrom + 4,
        );
    }

    /** Whole or not at all: half an image would be taken for one. */
    private static function put(string $path, string $bytes): void
    {
        (new DurableFile($path))->write($bytes, false);
    }
}
