<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay\Chip;

use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Overlay\Raster;

/** Which firmware of the overlay chip suits which of the board: one table of pairs, with what each chip draws. */
final readonly class ChipFit
{
    /** Firmware of Loam from => firmware of the chip from and before. */
    private const PAIRS = [
        '25.02' => ['1.0', '2.0'],
        '26.01' => ['2.0', '3.0'],
        '26.06' => ['2.1', '3.0'],
    ];

    /** What each kind of chip draws. */
    private const RASTERS = [
        'Scry' => [Raster::Lines625, Raster::Lines525],
        'Scry D' => [Raster::Digital],
    ];

    private function __construct(public bool $suits, public string $from, public string $before)
    {
    }

    public static function of(Version $board, Version $chip): self
    {
        $pair = ['0.0', '0.0'];
        foreach (self::PAIRS as $since => $versions) {
            $pair = $board->hasReachedNumber((string) $since) ? $versions : $pair;
        }

        return new self($chip->hasReachedNumber($pair[0]) && !$chip->hasReachedNumber($pair[1]), $pair[0], $pair[1]);
    }

    /** @return list<Raster> */
    public static function rasters(string $kind): array
    {
        return self::RASTERS[$kind] ?? [];
    }

    /** @return array<string, array{string, string}> */
    public static function pairs(): array
    {
        return self::PAIRS;
    }
}
