<?php

declare(strict_types=1);

namespace Ortholex\Core\Lag;

use Ortholex\Core\Signal\Statistics;

/**
 * Lag over the steps of one setting: a robust line (Theil 1950, Sen 1968), where it crosses zero, how surely, and the
 * value to use: the highest tested one, or the one in between, whose lag is not below zero.
 */
final readonly class LagSeries
{
    private const DRAWS = 400;

    /** A lag this little below nothing is none: what a flight repeats to, ms. */
    private const NONE_MS = 0.15;

    /**
     * @param list<array{value: float, lag_ms: float, iqr_ms: float}> $steps by rising value
     * @param array{float, float, float}|null                          $crossing value, low and high of 90 %
     */
    private function __construct(
        public array $steps,
        public float $slope,
        public float $offset,
        public ?array $crossing,
        public ?float $recommended,
    ) {
    }

    /**
     * @param list<array{value: float, lag: AxisLag}> $flights
     *
     * @return self|null null with fewer than two steps
     */
    public static function of(array $flights): ?self
    {
        usort($flights, static fn (array $a, array $b): int => $a['value'] <=> $b['value']);
        $points = array_map(static fn (array $f): array => [$f['value'], $f['lag']->ms], $flights);
        $line = self::line($points);
        if (null === $line) {
            return null;
        }
        [$slope, $offset] = $line;
        $steps = array_map(
            static fn (array $f): array => [
                'value' => $f['value'],
                'lag_ms' => round($f['lag']->ms, 4),
                'iqr_ms' => round($f['lag']->iqrMs, 4),
            ],
            $flights,
        );
        $crossing = null;
        if ($slope < -1e-9) {
            // Each lag is a median of windows: it is drawn anew with the spread that such a median has.
            $dice = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(20_261_123));
            $draws = [];
            for ($n = 0; $n < self::DRAWS; ++$n) {
                $drawn = [];
                foreach ($flights as $f) {
                    $sum = -6.0;
                    for ($i = 0; $i < 12; ++$i) {
                        $sum += $dice->getInt(0, 1_000_000) / 1e6;
                    }
                    $drawn[] = [
                        $f['value'],
                        $f['lag']->ms + $sum * max(0.05, (0.93 * $f['lag']->iqrMs) / sqrt(max(1, $f['lag']->windows))),
                    ];
                }
                [$b, $a] = self::line($drawn) ?? [0.0, 0.0];
                if ($b < -1e-9) {
                    $draws[] = -$a / $b;
                }
            }
            sort($draws);
            $crossing = [-$offset / $slope, Statistics::quantileOfSorted($draws, 0.05), Statistics::quantileOfSorted($draws, 0.95)];
        }

        return new self($steps, $slope, $offset, $crossing, self::recommend($points, $crossing));
    }

    /**
     * @param list<array{float, float}>       $points
     * @param array{float, float, float}|null $crossing
     */
    private static function recommend(array $points, ?array $crossing): ?float
    {
        $tested = array_filter($points, static fn (array $p): bool => $p[1] >= -self::NONE_MS);
        $highest = [] === $tested ? null : max(array_column($tested, 0));
        if ([] === $points) {
            return null;
        }
        if (null === $crossing || $crossing[0] > max(array_column($points, 0)) || $crossing[0] < min(array_column($points, 0))) {
            return $highest;
        }

        // Between the last step that still lags and the first that leads, the line tells.
        return round(max($highest ?? -\INF, $crossing[0]), 3);
    }

    /**
     * @param list<array{float, float}> $points
     *
     * @return array{float, float}|null slope and offset
     */
    private static function line(array $points): ?array
    {
        $slopes = [];
        foreach ($points as $i => [$x, $y]) {
            for ($j = $i + 1, $n = \count($points); $j < $n; ++$j) {
                if (abs($points[$j][0] - $x) > 1e-12) {
                    $slopes[] = ($points[$j][1] - $y) / ($points[$j][0] - $x);
                }
            }
        }
        if ([] === $slopes) {
            return null;
        }
        $slope = Statistics::median($slopes);

        return [$slope, Statistics::median(array_map(static fn (array $p): float => $p[1] - $slope * $p[0], $points))];
    }
}
