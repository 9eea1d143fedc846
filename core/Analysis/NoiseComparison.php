<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\Signal\Statistics;

/** Two spectra of one axis against each other, by bands: which is quieter, where, and by how much. */
final readonly class NoiseComparison
{
    private const BANDS_HZ = [[8.0, 30.0], [30.0, 80.0], [80.0, 200.0], [200.0, 450.0], [450.0, 1000.0]];

    /** Differences below this are the flights', not the mount's, dB. */
    private const LEAST_DB = 1.5;

    /** @param list<array{from_hz: float, to_hz: float, db: float}> $bands the first against the second; negative is quieter */
    private function __construct(public array $bands)
    {
    }

    /**
     * @param list<float> $a density of the first, dB, from zero on
     * @param list<float> $b of the second
     */
    public static function of(array $a, float $stepA, array $b, float $stepB): self
    {
        $bands = [];
        foreach (self::BANDS_HZ as [$from, $to]) {
            $here = array_filter(\array_slice($a, (int) ceil($from / $stepA), max(0, (int) (($to - $from) / $stepA))), 'is_finite');
            $there = array_filter(\array_slice($b, (int) ceil($from / $stepB), max(0, (int) (($to - $from) / $stepB))), 'is_finite');
            if (\count($here) >= 4 && \count($there) >= 4) {
                $bands[] = ['from_hz' => $from, 'to_hz' => $to, 'db' => Statistics::median(array_values($here)) - Statistics::median(array_values($there))];
            }
        }

        return new self($bands);
    }

    /** @return array{from_hz: float, to_hz: float, db: float}|null the band that differs most; null when none differs by more than two flights of one craft would */
    public function most(): ?array
    {
        $most = null;
        foreach ($this->bands as $band) {
            if (abs($band['db']) >= self::LEAST_DB && (null === $most || abs($band['db']) > abs($most['db']))) {
                $most = $band;
            }
        }

        return $most;
    }
}
