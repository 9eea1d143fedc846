<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Signal\Statistics;

/**
 * Two flights' noise of one axis against each other, by bands: which is quieter, where, and by how much. At equal throttle
 * where both were mapped; otherwise spectrum against spectrum.
 */
final readonly class NoiseComparison
{
    private const BANDS_HZ = [[8.0, 30.0], [30.0, 80.0], [80.0, 200.0], [200.0, 450.0], [450.0, 1000.0]];

    /** Throttle bins that two maps need in common, to be compared bin by bin. */
    private const LEAST_BINS = 5;

    /** Below this it is the sticks that shake the craft, unless both flights were flown alike. */
    private const MOVES_HZ = 30.0;

    private const ALIKE = 1.4;

    /** Differences below this are the flights', not the mount's, dB; twice as much where the sticks shake too. */
    private const LEAST_DB = 1.5;

    /**
     * @param list<array{from_hz: float, to_hz: float, db: float}> $bands the first against the second; negative is quieter
     * @param bool $alike whether the sticks moved alike in both; if not, nothing is said below 30 Hz
     */
    private function __construct(public array $bands, public bool $alike)
    {
    }

    /**
     * Bin by bin of throttle; null where the maps have too little in common.
     *
     * @param float $motionA RMS of the command, deg/s
     */
    public static function ofMaps(MapDifference $difference, float $motionA, float $motionB): ?self
    {
        return \count($difference->db) < self::LEAST_BINS
            ? null
            : new self($difference->bands(self::bandsFor($motionA, $motionB)), self::alike($motionA, $motionB));
    }

    /** @return list<array{float, float}> */
    private static function bandsFor(float $motionA, float $motionB): array
    {
        return array_values(
            array_filter(self::BANDS_HZ, static fn (array $band): bool => $band[0] >= self::MOVES_HZ || self::alike($motionA, $motionB)),
        );
    }

    private static function alike(float $motionA, float $motionB): bool
    {
        return max($motionA, $motionB) <= self::ALIKE * max(1.0, min($motionA, $motionB));
    }

    /**
     * @param list<float> $a density of the first, dB, from zero on
     * @param list<float> $b of the second
     * @param float       $motionA RMS of the command, deg/s
     */
    public static function of(array $a, float $stepA, array $b, float $stepB, float $motionA = 0.0, float $motionB = 0.0): self
    {
        $bands = [];
        foreach (self::bandsFor($motionA, $motionB) as [$from, $to]) {
            $here = array_filter(\array_slice($a, (int) ceil($from / $stepA), max(0, (int) (($to - $from) / $stepA))), 'is_finite');
            $there = array_filter(\array_slice($b, (int) ceil($from / $stepB), max(0, (int) (($to - $from) / $stepB))), 'is_finite');
            if (\count($here) >= 4 && \count($there) >= 4) {
                $bands[] = [
                    'from_hz' => $from,
                    'to_hz' => $to,
                    'db' => Statistics::median(array_values($here)) - Statistics::median(array_values($there)),
                ];
            }
        }

        return new self($bands, self::alike($motionA, $motionB));
    }

    /**
     * The band that differs most; null when none differs by more than two flights of one craft would.
     *
     * @return array{from_hz: float, to_hz: float, db: float}|null
     */
    public function most(): ?array
    {
        $most = null;
        foreach ($this->bands as $band) {
            if (
                abs($band['db']) >= ($band['from_hz'] < self::MOVES_HZ ? 2 : 1) * self::LEAST_DB
                && (null === $most || abs($band['db']) > abs($most['db']))
            ) {
                $most = $band;
            }
        }

        return $most;
    }

    /** Mean difference over all bands, dB; negative where the first is quieter on the whole. */
    public function mean(): float
    {
        return [] === $this->bands ? 0.0 : Statistics::mean(array_column($this->bands, 'db'));
    }
}
