<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

/**
 * What each motor does, learned from the flight, and the stretches in which one of them pushes no more: for each motor a
 * cumulative likelihood ratio (Page 1954) of "it pushes no more" against "all is well".
 */
final readonly class MotorLosses
{
    /** What the likelihood ratio must reach before a loss is believed, and over how long. */
    private const LEAST_LIKELIHOOD = 60.0;

    private const LEAST_LOSS_S = 0.06;

    /** Where no rotation or full output gives a sign, much more is asked. */
    private const LEAST_LIKELIHOOD_ALONE = 300.0;

    /** No step and axis is worth more than this: one gust is no loss. */
    private const MOST_PER_STEP = 6.0;

    /** Early on the loss is purest: later the craft tumbles, and nothing is certain any more. */
    private const PURE_S = 0.5;

    /** Share of the tilting acceleration that the model must explain. */
    private const LEAST_R2 = 0.25;

    /** Steps at the beginning of a run, while it takes off, that teach nothing; and at its end. */
    private const TAKE_OFF_STEPS = 60;

    private const LAST_STEPS = 5;

    /** Where no more than this would be left to learn from, only this share of the time before the sign is kept out. */
    private const LEAST_TAUGHT_S = 3.0;

    private const SHORT_TAUGHT_SHARE = 0.6;
    private const SHORT_BEFORE_S = 0.3;

    /** A run without a sign teaches by its first half, where it is longer than this. */
    private const HALF_FROM_S = 6.0;

    /** Long flights teach enough in their first minute's worth of steps. */
    private const MOST_TAUGHT = 30000;

    /** Whether a model explains enough of how this craft tilts, to accuse a motor with no other sign. */
    public static function mayAccuse(CraftModel $model): bool
    {
        return max($model->r2[0], $model->r2[1]) >= self::LEAST_R2;
    }

    /**
     * Stretches that are best explained by one motor pushing no more.
     *
     * @param list<FlightRun> $runs
     * @param bool            $wary whether no other sign speaks for a loss
     *
     * @return list<Suspicion> at most one a run
     */
    public static function of(array $runs, CraftModel $model, bool $wary): array
    {
        $found = [];
        foreach ($runs as $run) {
            $ratios = self::ratios($run, $model, $wary);
            $stretch = self::strongest($ratios, $wary ? self::LEAST_LIKELIHOOD_ALONE : self::LEAST_LIKELIHOOD);
            if (null === $stretch || $stretch[1] - $stretch[0] < self::LEAST_LOSS_S / $model->stepS) {
                continue;
            }
            $sums = array_fill(0, \count($run->outputs), 0.0);
            $early = min($stretch[1], $stretch[0] + (int) round(self::PURE_S / $model->stepS));
            for ($i = $stretch[0]; $i <= $early; ++$i) {
                foreach ($ratios[$i] as $m => $ratio) {
                    $sums[$m] += $ratio;
                }
            }
            $found[] = Suspicion::ofLoss($run, $stretch[0], $stretch[1], $sums);
        }

        return $found;
    }

    /**
     * @param list<FlightRun> $runs
     * @param list<Suspicion> $without what must not teach
     * @param list<string>    $places
     *
     * @return CraftModel|null null when there is too little to learn from
     */
    public static function learn(array $runs, array $without, array $places): ?CraftModel
    {
        if ([] === $places || [] === $runs) {
            return null;
        }
        /** @var list<list<float>> $rate */
        $rate = [[], [], []];
        /** @var list<list<float>> $accel */
        $accel = [[], [], []];
        /** @var array<int, list<float>> $outputs */
        $outputs = [];
        /** @var list<bool> $use */
        $use = [];
        foreach ($runs as $run) {
            foreach ([0, 1, 2] as $axis) {
                array_push($rate[$axis], ...$run->rate[$axis]);
                array_push($accel[$axis], ...$run->accel[$axis]);
            }
            foreach ($run->outputs as $m => $output) {
                $outputs[$m] = [...$outputs[$m] ?? [], ...$output];
            }
            array_push($use, ...self::teaching($run, $without));
        }
        $first = static fn (array $row): array => \array_slice($row, 0, self::MOST_TAUGHT);
        if (\count($use) > self::MOST_TAUGHT) {
            /** @var list<list<float>> $rate */
            $rate = array_map($first, $rate);
            /** @var list<list<float>> $accel */
            $accel = array_map($first, $accel);
            /** @var array<int, list<float>> $outputs */
            $outputs = array_map($first, $outputs);
            $use = \array_slice($use, 0, self::MOST_TAUGHT);
        }

        return CraftModel::fit($accel, $rate, array_values($outputs), $use, $runs[0]->stepS);
    }

    /** @return list<list<float>> by step and motor: log-likelihood ratio of its loss */
    private static function ratios(FlightRun $run, CraftModel $model, bool $wary): array
    {
        $steps = $run->count();
        $thrust = CraftModel::thrust($run->outputs, $model->lagS, $model->power, $model->stepS);
        $motors = \count($thrust);
        [$accel, $rate, $effectiveness, $known, $r2] = [$run->accel, $run->rate, $model->effectiveness, $model->variance, $model->r2];
        $most = self::MOST_PER_STEP;
        $ratios = [];
        for ($i = 0; $i < $steps; ++$i) {
            $now = [];
            for ($m = 0; $m < $motors; ++$m) {
                $now[] = $thrust[$m][$i];
            }
            $expected = $model->expected($now, [$rate[0][$i], $rate[1][$i], $rate[2][$i]]);
            // A model that explains half of what it sees is off by as much where the craft is thrown about; with no sign
            // to go by, that counts.
            $variance = [];
            for ($a = 0; $a < 3; ++$a) {
                $variance[] = $known[$a] + ($wary ? (1 - $r2[$a]) * $expected[$a] * $expected[$a] : 0.0);
            }
            $row = [];
            for ($m = 0; $m < $motors; ++$m) {
                $part = [0.0, 0.0, 0.0];
                for ($a = 0; $a < 3; ++$a) {
                    $off = $accel[$a][$i] - $expected[$a];
                    // The loss takes away what this motor would have pushed; a gust is not allowed to be worth more than it.
                    $s = -$effectiveness[$a][$m] * $now[$m];
                    $part[$a] = max(-$most, min($most, (2 * $off * $s - $s * $s) / $variance[$a]));
                }
                // Losing thrust tilts; yaw alone, which also gusts and the pilot turn, can bear that out but not make it.
                $tilt = $part[0] + $part[1];
                $row[] = $tilt + ($wary ? min($part[2], max(0.0, $tilt)) : $part[2]);
            }
            $ratios[] = $row;
        }

        return $ratios;
    }

    /**
     * The stretch over which some motor's sum of ratios grew most, begun anew whenever it fell to nothing (Page 1954).
     *
     * @param list<list<float>> $ratios
     *
     * @return array{int, int}|null first and last step
     */
    private static function strongest(array $ratios, float $least): ?array
    {
        $motors = \count($ratios[0] ?? []);
        $score = $peak = array_fill(0, $motors, 0.0);
        $since = array_fill(0, $motors, 0);
        $most = $least;
        $best = null;
        foreach ($ratios as $i => $row) {
            foreach ($row as $m => $ratio) {
                if ($score[$m] <= 0) {
                    $score[$m] = 0.0;
                    $since[$m] = $i;
                    $peak[$m] = 0.0;
                }
                $score[$m] += $ratio;
                if ($score[$m] > $peak[$m]) {
                    $peak[$m] = $score[$m];
                    if ($score[$m] > $most) {
                        $most = $score[$m];
                        $best = [$since[$m], $i];
                    }
                }
            }
        }

        return $best;
    }

    /**
     * Which steps of a run teach what a whole craft does: nothing after a first sign, nor shortly before it.
     *
     * @param list<Suspicion> $without
     *
     * @return list<bool>
     */
    private static function teaching(FlightRun $run, array $without): array
    {
        $n = $run->count();
        $mark = array_fill(0, $n, true);
        foreach ($without as $s) {
            if ($s->run === $run) {
                $first = $s->from - $run->steps(Incidents::BEFORE_SIGN_S);
                if ($first < self::LEAST_TAUGHT_S / $run->stepS) {
                    $first = max((int) (self::SHORT_TAUGHT_SHARE * $s->from), $s->from - $run->steps(self::SHORT_BEFORE_S));
                }
                for ($i = max(0, $first); $i < $n; ++$i) {
                    $mark[$i] = false;
                }
            }
        }
        // Where nothing showed, the first half teaches: a loss that others make up for would teach its own absence.
        $until = [] === $without && $n * $run->stepS > self::HALF_FROM_S ? intdiv($n, 2) : $n - self::LAST_STEPS;
        for ($i = 0; $i < $n; ++$i) {
            if ($i < self::TAKE_OFF_STEPS || $i > $until) {
                $mark[$i] = false;
            }
        }

        return array_values($mark);
    }
}
