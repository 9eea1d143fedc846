<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

use Ortholex\Core\Signal\Statistics;

/** The pack of a craft over its flights: voltage of a cell at rest by charge used, its resistance, and the currents that were flown. */
final readonly class Discharge
{
    /** A curve is taken from logs where they cover so much of the charge; else it is drawn on below what was flown. */
    public const COVERS = 0.8;

    /** A lithium cell at rest by share of its charge used, where no log tells: full, slope, knee, empty (as the bench's own is made). */
    private const FULL_V = 4.2;

    private const KNEE = 0.85;
    private const KNEE_V = 3.5625;
    private const EMPTY_V = 3.2;

    /**
     * @param list<array{float, float}> $rest    Ah used and V of a cell, rising in charge
     * @param float                     $ohm     of a cell
     * @param list<float>               $amperes mean of each flight
     * @param float                     $fullAh  of the pack
     * @param float                     $covers  share of the charge that logs tell of
     */
    private function __construct(
        public array $rest,
        public float $ohm,
        public array $amperes,
        public float $fullAh,
        public float $covers,
    ) {
    }

    /**
     * @param list<PackFit> $flights newest last
     * @param list<float>   $begin   charge used when each began, Ah
     */
    public static function of(array $flights, array $begin, float $fullAh): ?self
    {
        if ([] === $flights) {
            return null;
        }
        $points = $ohms = $amperes = [];
        foreach ($flights as $i => $flight) {
            foreach ($flight->rest as [$ah, $v]) {
                $points[] = [$ah + ($begin[$i] ?? 0.0), $v];
            }
            $ohms[] = $flight->ohm;
            $amperes[] = $flight->meanA;
        }
        usort($points, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $covers = min(1.0, $points[\count($points) - 1][0] / $fullAh);
        $rest = [];
        foreach (array_chunk($points, max(1, (int) ceil(\count($points) / 24))) as $bin) {
            $rest[] = [Statistics::median(array_column($bin, 0)), Statistics::median(array_column($bin, 1))];
        }

        return new self(self::drawnOn($rest, $fullAh), Statistics::median($ohms), $amperes, $fullAh, $covers);
    }

    /** Volts of a cell at rest. */
    public function restAt(float $ah): float
    {
        $n = \count($this->rest);
        for ($i = 1; $i < $n; ++$i) {
            if ($ah <= $this->rest[$i][0] || $i === $n - 1) {
                [$q0, $v0] = $this->rest[$i - 1];
                [$q1, $v1] = $this->rest[$i];

                return $v0 + (($v1 - $v0) * ($ah - $q0)) / max(1e-9, $q1 - $q0);
            }
        }

        return $this->rest[0][1] ?? 0.0;
    }

    /** Charge used when a cell under this current comes down to a voltage, Ah; all of it where it never does. */
    public function usedAt(float $cellV, float $amperes): float
    {
        [$low, $high] = [0.0, $this->fullAh];
        if ($this->restAt($high) - $this->ohm * $amperes > $cellV) {
            return $high;
        }
        for ($i = 0; $i < 40; ++$i) {
            $middle = ($low + $high) / 2;
            $this->restAt($middle) - $this->ohm * $amperes > $cellV ? ($low = $middle) : ($high = $middle);
        }

        return $low;
    }

    /**
     * Minutes from one level of a cell to another at the currents that were flown.
     *
     * @return array{float, float, float} median, and the quartiles
     */
    public function minutes(float $fromAh, float $toCellV): array
    {
        $minutes = array_map(fn (float $a): float => 60 * max(0.0, $this->usedAt($toCellV, $a) - $fromAh) / max(0.1, $a), $this->amperes);

        return [Statistics::median($minutes), Statistics::quantile($minutes, 0.25), Statistics::quantile($minutes, 0.75)];
    }

    /** Seconds between two voltages of a cell under the usual current; negative where the second comes first. */
    public function secondsBetween(float $fromCellV, float $toCellV): float
    {
        $a = Statistics::median($this->amperes);

        return (3600 * ($this->usedAt($toCellV, $a) - $this->usedAt($fromCellV, $a))) / max(0.1, $a);
    }

    /**
     * Where logs end early, a typical cell goes on from where they end.
     *
     * @param list<array{float, float}> $rest
     *
     * @return list<array{float, float}>
     */
    private static function drawnOn(array $rest, float $fullAh): array
    {
        [$last, $lastV] = $rest[\count($rest) - 1];
        $shift = $lastV - self::typical($last / $fullAh);
        foreach ([0.5, 0.6, 0.7, 0.8, 0.85, 0.9, 0.95, 1.0] as $share) {
            if ($share * $fullAh > $last + 0.02 * $fullAh) {
                $rest[] = [$share * $fullAh, self::typical($share) + $shift];
            }
        }
        [$first, $firstV] = $rest[0];
        if ($first > 0.01 * $fullAh) {
            array_unshift($rest, [0.0, min(4.25, $firstV + self::typical(0.0) - self::typical($first / $fullAh))]);
        }

        return $rest;
    }

    private static function typical(float $share): float
    {
        return $share < self::KNEE
            ? self::FULL_V + ((self::KNEE_V - self::FULL_V) * $share) / self::KNEE
            : self::KNEE_V + ((self::EMPTY_V - self::KNEE_V) * (min(1.0, $share) - self::KNEE)) / (1 - self::KNEE);
    }
}
