<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Noise\MapDifference;
use Ortholex\Core\Noise\NoiseMap;

/** A noise map as one byte a cell, 0 to 255 from the lowest to the highest density; only bins that have data. */
final readonly class MapChart
{
    private const LOW_DB = -45.0;
    private const HIGH_DB = 30.0;

    /**
     * @param list<int>       $bins
     * @param array<int, int> $windows by bin
     * @param string          $cells   bytes, bin after bin
     */
    private function __construct(public float $stepHz, public array $bins, public array $windows, public string $cells)
    {
    }

    public static function of(NoiseMap $map): self
    {
        $cells = '';
        foreach ($map->density as $row) {
            foreach ($row as $v) {
                $db = 10 * log10(max(1e-12, $v));
                $cells .= \chr((int) round(max(0.0, min(255.0, (255 * ($db - self::LOW_DB)) / (self::HIGH_DB - self::LOW_DB)))));
            }
        }

        return new self($map->stepHz, array_keys($map->density), $map->windows, $cells);
    }

    /** @return array<int, list<float>> densities, dB by bin */
    public function rows(): array
    {
        $width = [] === $this->bins ? 0 : intdiv(\strlen($this->cells), \count($this->bins));
        $rows = [];
        foreach ($this->bins as $i => $bin) {
            $row = [];
            for ($k = 0; $k < $width; ++$k) {
                $row[] = self::LOW_DB + (\ord($this->cells[$i * $width + $k]) / 255) * (self::HIGH_DB - self::LOW_DB);
            }
            $rows[$bin] = $row;
        }

        return $rows;
    }

    /** @param float $levels full level of this map over that of the other */
    public function less(self $other, float $levels = 1.0): MapDifference
    {
        return MapDifference::of($this->rows(), $this->stepHz, $other->rows(), $other->stepHz, $levels);
    }

    /** @return array<string, mixed> one byte a cell: 128 is alike, 1 and 255 are $spanDb quieter and louder */
    public static function difference(MapDifference $difference, float $spanDb): array
    {
        $cells = '';
        foreach ($difference->db as $row) {
            foreach ($row as $db) {
                $cells .= \chr((int) round(128 + 127 * max(-1.0, min(1.0, $db / $spanDb))));
            }
        }

        return [
            'bin_pct' => NoiseMap::BIN_PCT,
            'step_hz' => $difference->stepHz,
            'bins' => array_keys($difference->db),
            'span_db' => $spanDb,
            'cells' => base64_encode($cells),
        ];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'bin_pct' => NoiseMap::BIN_PCT,
            'step_hz' => $this->stepHz,
            'bins' => $this->bins,
            'windows' => $this->windows,
            'low_db' => self::LOW_DB,
            'high_db' => self::HIGH_DB,
            'cells' => base64_encode($this->cells),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $windows = [];
        foreach ($data->map('windows') as $bin => $count) {
            $windows[(int) $bin] = $data->part('windows')->whole((string) $bin);
        }

        return new self(
            $data->number('step_hz'),
            array_map('intval', $data->numbers('bins')),
            $windows,
            (string) base64_decode($data->text('cells'), true),
        );
    }
}
