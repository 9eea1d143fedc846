<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

use Ortholex\Core\Craft\Place;
use Ortholex\Core\Signal\LinearSystem;
use Ortholex\Core\Signal\Statistics;

/**
 * What each motor does to each axis, found from the flight itself:
 *
 *     acceleration[axis] = Σ effectiveness[axis][motor]·thrust + damping[axis]·rate + coupling[axis]·(product of the other two
 *     rates) + reaction[axis]·Σ side·change of rotor speed + offset
 *
 * Thrust is by the law of the rotors' speed (RotorLaw). The coupling is that of a rigid body, ω × Iω (Euler). Least squares,
 * drawn towards where the motors sit, with each block of time weighted by how likely it is (Student's t with four degrees of
 * freedom, iterated), so that a knock or a loss teaches little.
 */
final readonly class CraftModel
{
    /** Blocks that a law is chosen on. */
    private const PART = 700;

    /** Fewer blocks than this for each unknown teach nothing. */
    private const LEAST_BLOCKS = 10;

    /** Longer flights are learned from every so manieth block. */
    private const MOST_BLOCKS = 12000;

    private const ITERATIONS = 4;
    private const FREEDOM = 4.0;

    /** Motors that always move together cannot be told apart: this share of their usual variance draws them to their prior. */
    private const RIDGE = 0.3;

    /** An axis with no acceleration at all varies by this, (deg/s²)². */
    private const LEAST_VARIANCE = 100.0;

    /** What was asked so many blocks ago speaks for what the motors do now. */
    private const ASKED_AGO = [0, 2, 4, 7];

    /** What is expected is allowed to be off by this share of itself before a block counts less. */
    private const SLACK = 0.3;

    /** Least squares find motors this much too strong or too weak at most. */
    private const LEAST_FACTOR = 0.8;

    private const MOST_FACTOR = 4.0;

    /** Cosine of what motors do and where they sit. */
    private const LEAST_LIKENESS = 0.6;

    private const LEAST_R2 = 0.25;

    /** Blocks at the beginning of a run, while it takes off. */
    private const TAKE_OFF = 12;

    /**
     * @param list<list<float>> $effectiveness deg/s² per full thrust, by axis and motor
     * @param list<float>       $r2            share of the acceleration that it explains, by axis
     * @param list<list<float>> $coefficients  by axis: motors, rate, coupling, reaction, offset
     * @param list<float>       $sides         by motor: which way its speeding up turns the craft about yaw
     */
    private function __construct(
        public RotorLaw $law,
        public array $effectiveness,
        public array $r2,
        private array $coefficients,
        private array $sides,
    ) {
    }

    /**
     * @param list<Blocks> $all
     * @param list<string> $places of the motors
     *
     * @return self|null null when there is too little to learn from
     */
    public static function fit(array $all, array $places, ?RotorLaw $law = null): ?self
    {
        $n = \count($places);
        $longest = null;
        $blocks = 0;
        foreach ($all as $one) {
            $blocks += $one->teaching();
            $longest = null === $longest || $one->count() > $longest->count() ? $one : $longest;
        }
        if (0 === $n || null === $longest || $blocks < self::LEAST_BLOCKS * ($n + 4)) {
            return null;
        }
        $law ??= self::lawByMotion($longest, $places);
        $every = (int) ceil($blocks / self::MOST_BLOCKS);
        $data = [];
        foreach ($all as $one) {
            [$thrust, $change] = $one->thrust($law);
            $data[] = [$one, $thrust, $change, min(self::TAKE_OFF, intdiv($one->count(), 4)), $one->count()];
        }

        return self::learned($law, $data, $places, $every, self::ITERATIONS);
    }

    /**
     * Whether what was learned can be this craft: motors push the side they sit on up. Where no place is known, whether the model
     * explains a good part of how it tilts.
     *
     * @param list<string> $places
     */
    public function isOfThisCraft(array $places): bool
    {
        return $this->likeness($places) >= self::LEAST_LIKENESS;
    }

    /**
     * Cosine of what motors do to roll and pitch and of where they sit, the lesser of the two; where no place is known, the share of
     * tilting that is explained.
     *
     * @param list<string> $places
     */
    public function likeness(array $places): float
    {
        $sides = self::bySide($places);
        $least = null;
        foreach ([0, 1] as $axis) {
            $dot = $own = $all = 0.0;
            foreach ($sides[$axis] as $m => $side) {
                $dot += $side * $this->effectiveness[$axis][$m];
                $own += $side * $side;
                $all += $this->effectiveness[$axis][$m] ** 2;
            }
            if ($own > 0) {
                $cosine = $all > 0 ? $dot / sqrt($own * $all) : 0.0;
                $least = min($least ?? $cosine, $cosine);
            }
        }

        return $least ?? (max($this->r2[0], $this->r2[1]) >= self::LEAST_R2 ? 1.0 : 0.0);
    }

    /**
     * @param list<float> $thrust of each motor
     * @param list<float> $change of each rotor's speed, 1/s
     *
     * @return array{float, float, float} deg/s²
     */
    public function expected(array $thrust, array $change, float $roll, float $pitch, float $yaw): array
    {
        $n = \count($thrust);
        $turn = 0.0;
        foreach ($this->sides as $m => $side) {
            $turn += $side * $change[$m];
        }
        [$a, $b, $c] = $this->coefficients;
        $out = [
            $a[$n] * $roll + $a[$n + 1] * $pitch * $yaw + $a[$n + 2] * $turn + $a[$n + 3],
            $b[$n] * $pitch + $b[$n + 1] * $roll * $yaw + $b[$n + 2] * $turn + $b[$n + 3],
            $c[$n] * $yaw + $c[$n + 1] * $roll * $pitch + $c[$n + 2] * $turn + $c[$n + 3],
        ];
        foreach ($thrust as $m => $t) {
            $out[0] += $a[$m] * $t;
            $out[1] += $b[$m] * $t;
            $out[2] += $c[$m] * $t;
        }

        return $out;
    }

    /** @param list<string> $places */
    private static function lawByMotion(Blocks $blocks, array $places): RotorLaw
    {
        $from = self::liveliest($blocks);
        $count = min(self::PART, $blocks->count() - $from);

        return RotorLaw::best(static function (RotorLaw $law) use ($blocks, $from, $count, $places): float {
            [$thrust, $change] = $blocks->thrust($law, $from, $count);
            $model = self::learned($law, [[$blocks, $thrust, $change, $from, $from + $count]], $places, 1, 1, $from);

            return 2 - ($model->r2[0] ?? 0.0) - ($model->r2[1] ?? 0.0);
        });
    }

    /** Where it is thrown about most, by the median: a knock does not make it lively. */
    private static function liveliest(Blocks $blocks): int
    {
        $n = $blocks->count();
        $best = 0;
        $most = -1.0;
        for ($from = min(self::TAKE_OFF, $n); $from + self::PART <= $n; $from += intdiv(self::PART, 2)) {
            $size = [];
            for ($i = $from, $end = $from + self::PART; $i < $end; $i += 5) {
                if (!$blocks->teaches[$i]) {
                    continue;
                }
                $size[] = abs($blocks->accel[0][$i]) + abs($blocks->accel[1][$i]);
            }
            $lively = \count($size) < self::PART / 10 ? 0.0 : Statistics::median($size);
            if ($lively > $most) {
                $most = $lively;
                $best = $from;
            }
        }

        return $best;
    }

    /**
     * @param list<array{Blocks, list<list<float>>, list<list<float>>, int, int}> $data   blocks, thrust, change of speed, from, to
     * @param list<string>                                                        $places
     * @param int                                                                 $shift  block of the first thrust
     */
    private static function learned(RotorLaw $law, array $data, array $places, int $every, int $iterations, int $shift = 0): ?self
    {
        $n = \count($places);
        $prior = self::bySide($places);
        $sides = array_fill(0, $n, 0.0);
        $coefficients = null;
        $asked = self::asked($data, $every);
        $variance = [self::LEAST_VARIANCE, self::LEAST_VARIANCE, self::LEAST_VARIANCE];
        for ($round = 0; $round < $iterations; ++$round) {
            // One after the other is held, not two.
            $rows = [];
            $rows = self::rows($data, $sides, $every, $shift);
            if (null === $coefficients) {
                $variance = self::spread($rows, null, $n);
            }
            $weights = self::weights($rows, $coefficients, $variance, $n);
            $fitted = [];
            foreach ([0, 1, 2] as $axis) {
                $fitted[] = self::solved($rows, $axis, $n, $weights, $prior[$axis], $round);
            }
            if ([] !== $asked) {
                $fitted = self::asMuchAsAsked($rows, $asked, $weights, $fitted, $n);
            }
            $coefficients = $fitted;
            $variance = self::spread($rows, $coefficients, $n);
            $most = max([1e-9, ...array_map(abs(...), \array_slice($coefficients[2], 0, $n))]);
            $sides = array_map(static fn (float $e): float => $e / $most, \array_slice($coefficients[2], 0, $n));
            foreach ([0, 1] as $axis) {
                $prior[$axis] = self::scaled(self::bySide($places)[$axis], $coefficients[$axis]);
            }
        }
        if (null === $coefficients) {
            return null;
        }
        $rows = [];
        $rows = self::rows($data, $sides, max(1, $every), $shift);
        $total = self::spread($rows, null, $n);
        $left = self::spread($rows, $coefficients, $n);
        $r2 = [];
        foreach ([0, 1, 2] as $axis) {
            $r2[] = max(0.0, min(1.0, 1 - $left[$axis] / $total[$axis]));
        }

        return new self($law, array_map(static fn (array $c): array => \array_slice($c, 0, $n), $coefficients), $r2, $coefficients, $sides);
    }

    /**
     * @param list<array{Blocks, list<list<float>>, list<list<float>>, int, int}> $data
     * @param list<float>                                                         $sides
     *
     * @return list<list<float>> a block each: thrusts, three rates, three products, reaction, three accelerations
     */
    private static function rows(array $data, array $sides, int $every, int $shift): array
    {
        $rows = [];
        foreach ($data as [$blocks, $thrust, $change, $from, $to]) {
            [$accel, $rate] = [$blocks->accel, $blocks->rate];
            for ($i = $from; $i < $to; $i += $every) {
                if (!$blocks->teaches[$i]) {
                    continue;
                }
                $row = [];
                $turn = 0.0;
                foreach ($thrust as $m => $t) {
                    $row[] = $t[$i - $shift];
                    $turn += $sides[$m] * $change[$m][$i - $shift];
                }
                [$p, $q, $r] = [$rate[0][$i], $rate[1][$i], $rate[2][$i]];
                array_push($row, $p, $q, $r, $q * $r, $p * $r, $p * $q, $turn, $accel[0][$i], $accel[1][$i], $accel[2][$i]);
                $rows[] = $row;
            }
        }

        return $rows;
    }

    /**
     * @param list<list<float>>      $rows
     * @param list<list<float>>|null $coefficients null for nothing explained
     *
     * @return list<float> robust variance of what is left, by axis
     */
    private static function spread(array $rows, ?array $coefficients, int $n): array
    {
        $out = [];
        foreach ([0, 1, 2] as $axis) {
            $left = [];
            for ($i = 0, $count = \count($rows), $every = max(1, intdiv($count, 3000)); $i < $count; $i += $every) {
                $by = null === $coefficients ? 0.0 : self::explained($rows[$i], $axis, $n, $coefficients);
                $left[] = abs($rows[$i][$n + 7 + $axis] - $by);
            }
            // From the usual and from the lively: both count.
            $usual = [] === $left ? 0.0 : 1.4826 * Statistics::median($left);
            $lively = [] === $left ? 0.0 : Statistics::quantile($left, 0.9) / 1.645;
            $out[] = max(self::LEAST_VARIANCE, $usual * $lively);
        }

        return $out;
    }

    /**
     * @param list<float>       $row
     * @param list<list<float>> $coefficients
     */
    private static function explained(array $row, int $axis, int $n, array $coefficients): float
    {
        $c = $coefficients[$axis];
        $sum = $c[$n] * $row[$n + $axis] + $c[$n + 1] * $row[$n + 3 + $axis] + $c[$n + 2] * $row[$n + 6] + $c[$n + 3];
        for ($m = 0; $m < $n; ++$m) {
            $sum += $c[$m] * $row[$m];
        }

        return $sum;
    }

    /**
     * What the pilot asked before each block; nothing where it was not logged everywhere.
     *
     * @param list<array{Blocks, list<list<float>>, list<list<float>>, int, int}> $data
     *
     * @return list<list<float>>
     */
    private static function asked(array $data, int $every): array
    {
        $asked = [];
        foreach ($data as [$blocks, , , $from, $to]) {
            if (\count($blocks->asked) < 3) {
                return [];
            }
            for ($i = $from; $i < $to; $i += $every) {
                if (!$blocks->teaches[$i]) {
                    continue;
                }
                $row = [1.0];
                foreach ($blocks->asked as $trace) {
                    foreach (self::ASKED_AGO as $ago) {
                        $row[] = $trace[max(0, $i - $ago)];
                    }
                }
                $asked[] = $row;
            }
        }

        // Runs of one log have the same traces; a log without sticks tells nothing of what was asked.
        return $asked;
    }

    /**
     * @param list<list<float>>      $rows
     * @param list<list<float>>|null $coefficients of the round before
     * @param list<float>            $variance     by axis
     *
     * @return list<float>
     */
    private static function weights(array $rows, ?array $coefficients, array $variance, int $n): array
    {
        if (null === $coefficients) {
            return array_fill(0, \count($rows), 1.0);
        }
        $weights = [];
        foreach ($rows as $row) {
            $off = 0.0;
            foreach ([0, 1, 2] as $axis) {
                $expected = self::explained($row, $axis, $n, $coefficients);
                $d = $row[$n + 7 + $axis] - $expected;
                $off += $d * $d / ($variance[$axis] + (self::SLACK * $expected) ** 2);
            }
            $weights[] = (self::FREEDOM + 3) / (self::FREEDOM + $off);
        }

        return $weights;
    }

    /**
     * The same with all motors of an axis stronger by one factor: what of their push follows from what was asked, against what of
     * the motion does.
     *
     * @param list<list<float>> $rows
     * @param list<list<float>> $asked
     * @param list<float>       $weights
     * @param list<list<float>> $coefficients by axis
     *
     * @return list<list<float>>
     */
    private static function asMuchAsAsked(array $rows, array $asked, array $weights, array $coefficients, int $n): array
    {
        $size = \count($asked[0]);
        // For each axis its push, its rate and its acceleration less what else explains it.
        $a = array_fill(0, $size, array_fill(0, $size, 0.0));
        $b = array_fill(0, 9, array_fill(0, $size, 0.0));
        foreach ($asked as $k => $z) {
            $row = $rows[$k];
            $signals = [];
            foreach ([0, 1, 2] as $axis) {
                $c = $coefficients[$axis];
                $sum = 0.0;
                for ($m = 0; $m < $n; ++$m) {
                    $sum += $c[$m] * $row[$m];
                }
                $signals[] = $sum;
                $signals[] = $row[$n + $axis];
                $signals[] = $row[$n + 7 + $axis] - $c[$n + 1] * $row[$n + 3 + $axis] - $c[$n + 2] * $row[$n + 6];
            }
            for ($i = 0; $i < $size; ++$i) {
                $wz = $weights[$k] * $z[$i];
                for ($j = $i; $j < $size; ++$j) {
                    $a[$i][$j] += $wz * $z[$j];
                }
                for ($j = 0; $j < 9; ++$j) {
                    $b[$j][$i] += $wz * $signals[$j];
                }
            }
        }
        for ($i = 0; $i < $size; ++$i) {
            for ($j = 0; $j < $i; ++$j) {
                $a[$i][$j] = $a[$j][$i];
            }
            $a[$i][$i] += 1e-6 * $a[$i][$i] + 1e-6;
        }
        $by = array_map(static fn (array $right): array => LinearSystem::solvePositive($a, $right), $b);
        $stronger = [];
        foreach ([0, 1, 2] as $axis) {
            $factor = self::factor($a, $by[3 * $axis], $by[3 * $axis + 1], $by[3 * $axis + 2]);
            $row = [];
            foreach ($coefficients[$axis] as $i => $c) {
                $row[] = $i < $n ? $factor[0] * $c : match ($i - $n) {
                    0 => $factor[1],
                    3 => $factor[2],
                    default => $c,
                };
            }
            $stronger[] = $row;
        }

        return $stronger;
    }

    /**
     * How much stronger, with the damping and the offset that go with it: y = factor·push + damping·rate + offset, each as it follows
     * from what was asked.
     *
     * @param array<int, array<int, float>> $a    products of what was asked
     * @param array<int, float>             $push by what was asked
     * @param array<int, float>             $rate
     * @param array<int, float>             $y
     *
     * @return array{float, float, float}
     */
    private static function factor(array $a, array $push, array $rate, array $y): array
    {
        $one = array_fill(0, \count($a), 0.0);
        $one[0] = 1.0;
        $columns = [$push, $rate, $one];
        $m = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        $to = [0.0, 0.0, 0.0];
        foreach ($columns as $p => $left) {
            foreach ($a as $i => $row) {
                $sum = 0.0;
                foreach ($row as $j => $v) {
                    $sum += $v * $left[$j];
                }
                foreach ($columns as $q => $right) {
                    $m[$p][$q] += $sum * $right[$i];
                }
                $to[$p] += $sum * $y[$i];
            }
            $m[$p][$p] *= 1 + 1e-6;
        }
        $found = LinearSystem::solve($m, $to, 1e-9) ?? [1.0, 0.0, 0.0];

        return [max(self::LEAST_FACTOR, min(self::MOST_FACTOR, $found[0])), $found[1], $found[2]];
    }

    /**
     * @param list<list<float>> $rows
     * @param list<float>       $weights
     * @param list<float>       $prior   what a motor does if nothing else tells
     *
     * @return list<float> motors, rate, coupling, reaction, offset
     */
    private static function solved(array $rows, int $axis, int $n, array $weights, array $prior, int $round): array
    {
        $size = $n + 4;
        $a = array_fill(0, $size, array_fill(0, $size, 0.0));
        $b = array_fill(0, $size, 0.0);
        $sum = array_sum($weights);
        $middle = [];
        for ($m = 0; $m < $n; ++$m) {
            $middle[] = array_sum(array_map(static fn (array $row, float $w): float => $w * $row[$m], $rows, $weights)) / $sum;
        }
        foreach ($rows as $k => $row) {
            $weight = $weights[$k];
            $y = $row[$n + 7 + $axis];
            // Columns in their order; coupling in thousands, so that all are of a size.
            $x = [];
            for ($m = 0; $m < $n; ++$m) {
                $x[] = $row[$m] - $middle[$m];
            }
            $x[] = $row[$n + $axis];
            $x[] = $row[$n + 3 + $axis] / 1000;
            $x[] = $row[$n + 6];
            $x[] = 1.0;
            for ($i = 0; $i < $size; ++$i) {
                $wx = $weight * $x[$i];
                for ($j = $i; $j < $size; ++$j) {
                    $a[$i][$j] += $wx * $x[$j];
                }
                $b[$i] += $wx * $y;
            }
        }
        $usual = 0.0;
        for ($m = 0; $m < $n; ++$m) {
            $usual += $a[$m][$m] / $n;
        }
        for ($i = 0; $i < $size; ++$i) {
            for ($j = 0; $j < $i; ++$j) {
                $a[$i][$j] = $a[$j][$i];
            }
            $ridge = $i < $n ? self::RIDGE * $usual + 1e-9 * $sum : 1e-6 * $a[$i][$i] + 1e-3;
            $a[$i][$i] += $ridge;
            $b[$i] += $i < $n && $round > 0 ? $ridge * $prior[$i] : 0.0;
        }
        $c = LinearSystem::solvePositive($a, $b);
        $c[$n + 1] /= 1000;
        for ($m = 0; $m < $n; ++$m) {
            $c[$n + 3] -= $c[$m] * $middle[$m];
        }

        return array_values($c);
    }

    /**
     * What each motor does to roll and pitch by where it sits alone; nothing where its place does not tell. Where motors sit
     * straight aside or ahead, those between them reach half as far that way.
     *
     * @param list<string> $places
     *
     * @return list<list<float>> by axis and motor
     */
    public static function bySide(array $places): array
    {
        $known = array_map(Place::tryFrom(...), $places);
        $aside = \in_array(Place::Right, $known, true) || \in_array(Place::Left, $known, true);
        $ahead = \in_array(Place::Front, $known, true) || \in_array(Place::Rear, $known, true);
        $sides = [[], [], []];
        foreach ($known as $place) {
            [$right, $forward] = null === $place ? [0, 0] : [$place->right(), $place->forward()];
            $between = 0 !== $right && 0 !== $forward;
            $sides[0][] = -$right * ($between && $aside ? 0.5 : 1.0);
            $sides[1][] = $forward * ($between && $ahead ? 0.5 : 1.0);
            $sides[2][] = 0.0;
        }

        return $sides;
    }

    /**
     * @param list<float> $sides
     * @param list<float> $coefficients
     *
     * @return list<float> the sides, as large as the motors were found to be
     */
    private static function scaled(array $sides, array $coefficients): array
    {
        $dot = $own = 0.0;
        foreach ($sides as $m => $side) {
            $dot += $side * $coefficients[$m];
            $own += $side * $side;
        }

        return array_map(static fn (float $side): float => $own > 0 ? $side * max(0.0, $dot) / $own : 0.0, $sides);
    }
}
