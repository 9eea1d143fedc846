<?php

declare(strict_types=1);

namespace Ortholex\Core\Lag;

use Ortholex\Core\Signal\LinearSystem;
use Ortholex\Core\Signal\Statistics;

/**
 * Lag over the steps of one setting: a robust line (Theil 1950, Sen 1968), from four steps on with the bend that lag has (the more
 * feed-forward, the less the next step takes away) by least squares under Huber's weights; where it crosses zero, how surely, and the
 * value to use: the highest tested one, or the one in between, whose lag is not below zero.
 *
 * The interval is drawn from what each flight's median can be wrong by, widened where the flights lie further from the curve than that.
 */
final readonly class LagSeries
{
    private const DRAWS = 1000;

    /** A lag this little below nothing is none: what a flight repeats to, ms. */
    private const NONE_MS = 0.15;

    /** What two flights of the same craft differ by, whatever their windows say, ms. */
    private const LEAST_ERROR_MS = 0.05;

    private const FEW_WINDOWS = 6;
    private const SMALL_MOVES_DPS = 40.0;

    /** From so many steps on the bend is told. */
    private const BENT = 4;

    /** The bend is that of lags about this near to nothing; far off it is another, ms. */
    private const NEAR_MS = 10.0;

    /** Residuals beyond this many deviations count less (Huber 1964). */
    private const HUBER = 1.5;

    /** Flights this much further from the curve than their windows allow do not lie on one. */
    private const NO_LINE = 3.0;

    /** What windows of one flight share, and a bend that is not quite the parabola's: measured on loops whose crossing is known. */
    private const WIDENED = 1.35;

    /** Nine of ten, in deviations. */
    private const SURELY = 1.645;

    /** Share of the draws that may cross nowhere. */
    private const MOST_LOST = 0.05;

    /**
     * @param list<array{value: float, lag_ms: float, iqr_ms: float, error_ms: float}> $steps by rising value
     * @param array{float, float, float}|null                                          $crossing value, low and high of 90 %
     * @param list<LagDoubt>                                                           $doubts
     */
    private function __construct(
        public array $steps,
        public float $slope,
        public float $offset,
        public ?array $crossing,
        public ?float $recommended,
        public array $doubts,
    ) {
    }

    /**
     * @param list<array{value: float, lag: AxisLag}> $flights
     *
     * @return self|null null with fewer than two steps
     */
    public static function of(array $flights): ?self
    {
        if ([] === $flights) {
            return null;
        }
        usort($flights, static fn (array $a, array $b): int => $a['value'] <=> $b['value']);
        $points = array_map(static fn (array $f): array => [$f['value'], $f['lag']->ms], $flights);
        $line = self::line($points);
        if (null === $line) {
            return null;
        }
        [$slope, $offset] = $line;
        $errors = array_map(static fn (array $f): float => max(self::LEAST_ERROR_MS, $f['lag']->errorMs), $flights);
        $steps = [];
        foreach ($flights as $i => $f) {
            $steps[] = [
                'value' => $f['value'],
                'lag_ms' => round($f['lag']->ms, 4),
                'iqr_ms' => round($f['lag']->iqrMs, 4),
                'error_ms' => round($errors[$i], 4),
            ];
        }
        $curve = self::curve($points, $errors, $line);
        $misfit = self::misfit($points, $errors, $curve);
        $crossing = $slope < -1e-9 ? self::crossing($points, $errors, self::WIDENED * max(1.0, $misfit), $curve) : null;
        $doubts = self::doubts($flights, $misfit, $slope, $crossing);

        return new self(
            $steps,
            $slope,
            $offset,
            $crossing,
            \in_array(LagDoubt::Wide, $doubts, true) ? self::stillLags($points, $errors) : self::recommend($points, $crossing),
            $doubts,
        );
    }

    /**
     * How much further than their errors the flights lie from the curve.
     *
     * @param list<array{float, float}>  $points
     * @param list<float>                $errors
     * @param array{float, float, float} $curve
     */
    private static function misfit(array $points, array $errors, array $curve): float
    {
        $sum = 0.0;
        foreach ($points as $i => [$x, $y]) {
            $sum += (($y - $curve[0] - $curve[1] * $x - $curve[2] * $x * $x) / $errors[$i]) ** 2;
        }

        return sqrt($sum / max(1, \count($points) - (\count($points) < self::BENT ? 2 : 3)));
    }

    /**
     * @param list<array{float, float}>  $points
     * @param list<float>                $errors
     * @param array{float, float, float} $curve
     *
     * @return array{float, float, float}|null null where too many draws cross nowhere
     */
    private static function crossing(array $points, array $errors, float $wider, array $curve): ?array
    {
        $middle = Statistics::median(array_column($points, 0));
        $is = self::zero($curve, $middle);
        $dice = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(20_261_123));
        $draws = [];
        for ($n = 0; $n < self::DRAWS; ++$n) {
            $drawn = [];
            foreach ($points as $i => [$x, $y]) {
                $sum = -6.0;
                for ($j = 0; $j < 12; ++$j) {
                    $sum += $dice->getInt(0, 1_000_000) / 1e6;
                }
                $drawn[] = [$x, $y + $sum * $wider * $errors[$i]];
            }
            $line = self::line($drawn);
            $zero = null === $line ? null : self::zero(self::curve($drawn, $errors, $line), $middle);
            if (null !== $zero) {
                $draws[] = $zero;
            }
        }
        if (null === $is || \count($draws) < (1 - self::MOST_LOST) * self::DRAWS) {
            return null;
        }
        sort($draws);

        return [$is, Statistics::quantileOfSorted($draws, 0.05), Statistics::quantileOfSorted($draws, 0.95)];
    }

    /**
     * @param list<array{float, float}> $points
     * @param list<float>               $errors
     * @param array{float, float}       $line   slope and offset, from which the residuals are first told
     *
     * @return array{float, float, float} offset, slope, bend
     */
    private static function curve(array $points, array $errors, array $line): array
    {
        $curve = [$line[1], $line[0], 0.0];
        if (\count($points) < self::BENT) {
            return $curve;
        }
        for ($round = 0; $round < 4; ++$round) {
            $residuals = array_map(static fn (array $p): float => $p[1] - $curve[0] - $curve[1] * $p[0] - $curve[2] * $p[0] ** 2, $points);
            $spread = 1.4826 * Statistics::median(array_map(abs(...), $residuals)) + 1e-9;
            $a = array_fill(0, 3, array_fill(0, 3, 0.0));
            $g = [0.0, 0.0, 0.0];
            foreach ($points as $i => [$x, $y]) {
                $weight = min(1.0, (self::HUBER * $spread) / max(1e-12, abs($residuals[$i])));
                $weight /= $errors[$i] ** 2 * (1 + ($y / self::NEAR_MS) ** 2);
                $row = [1.0, $x, $x * $x];
                foreach ($row as $j => $v) {
                    $g[$j] += $weight * $v * $y;
                    foreach ($row as $k => $u) {
                        $a[$j][$k] += $weight * $v * $u;
                    }
                }
            }
            $solved = LinearSystem::solvePositive($a, $g);
            $curve = [$solved[0], $solved[1], $solved[2]];
        }

        return $curve;
    }

    /**
     * Where the curve falls through nothing.
     *
     * @param array{float, float, float} $curve
     * @param float                      $near  a value of what was flown
     */
    private static function zero(array $curve, float $near): ?float
    {
        [$a, $b, $c] = $curve;
        if (abs($c) * max(1.0, $near ** 2) < 1e-9 * (abs($a) + abs($b))) {
            return $b < 0 ? -$a / $b : null;
        }
        $under = $b * $b - 4 * $a * $c;
        if ($under < 0) {
            return null;
        }
        // It falls at the one of the two where b + 2cx is negative.
        $x = (-$b - sqrt($under)) / (2 * $c);

        return is_finite($x) ? $x : null;
    }

    /**
     * @param non-empty-list<array{value: float, lag: AxisLag}> $flights by rising value
     * @param array{float, float, float}|null                   $crossing
     *
     * @return list<LagDoubt>
     */
    private static function doubts(array $flights, float $misfit, float $slope, ?array $crossing): array
    {
        [$low, $high] = [$flights[0]['value'], $flights[\count($flights) - 1]['value']];
        $lags = array_column($flights, 'lag');

        $is = [
            [LagDoubt::SmallMoves, min([\INF, ...array_map(static fn (AxisLag $l): float => $l->moveDps, $lags)]) < self::SMALL_MOVES_DPS],
            [LagDoubt::FewWindows, [] !== array_filter($lags, static fn (AxisLag $l): bool => $l->windows < self::FEW_WINDOWS)],
            [LagDoubt::NoLine, \count($flights) > 2 && $misfit > self::NO_LINE],
            [LagDoubt::Wide, $slope < -1e-9 && (null === $crossing || $crossing[2] - $crossing[1] > $high - $low)],
            [LagDoubt::Beyond, null !== $crossing && ($crossing[0] < $low || $crossing[0] > $high)],
        ];

        return array_column(array_filter($is, static fn (array $one): bool => $one[1]), 0);
    }

    /**
     * The highest step that lags for sure, where the line tells nothing.
     *
     * @param list<array{float, float}> $points
     * @param list<float>               $errors
     */
    private static function stillLags(array $points, array $errors): ?float
    {
        $best = null;
        foreach ($points as $i => [$value, $ms]) {
            $best = $ms > self::SURELY * $errors[$i] ? max($best ?? -\INF, $value) : $best;
        }

        return $best;
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
