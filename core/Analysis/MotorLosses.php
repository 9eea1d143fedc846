<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\Signal\Statistics;

/**
 * What each motor does, learned from the flight, and the stretches in which one of them pushes no more: for each motor a
 * cumulative likelihood ratio (Page 1954) of "it pushes no more" against "all is well".
 */
final readonly class MotorLosses
{
    /** What the likelihood ratio must reach, and over how long, before a loss is believed. */
    private const LEAST_GAIN = 60.0;

    /** Where no rotation or full output gives a sign, much more is asked. */
    private const ALONE_GAIN = 300.0;

    private const LEAST_LOSS_S = 0.06;

    /** Share of the tilting acceleration that the model must explain. */
    private const LEAST_R2 = 0.25;

    /** Speed below this share of what its output usually gives is no speed of a motor that runs. */
    private const LOST_SHARE = 0.5;

    /** Where it begins to fall behind, the loss begins. */
    private const BEHIND_SHARE = 0.8;

    /** Of its highest usual speed, at which a motor stands. */
    private const STILL_SHARE = 0.02;

    private const SMOOTH_S = 0.06;
    private const RPM_LOST_S = 0.08;
    private const RAN_S = 0.5;
    private const BIN_PCT = 5.0;

    /** Below this output a motor may well stand still, %. */
    private const LEAST_OUTPUT_PCT = 12.0;

    /**
     * Motors whose logged speed fell far below what the same output gives in the rest of the flight: direct evidence.
     *
     * @param array{outputs: list<list<float>>, rpm: list<list<float>|null>} $run
     *
     * @return list<array{motor: int, from: int, to: int}> in order of time
     */
    public static function byRpm(array $run, float $stepS): array
    {
        $w = max(1, (int) round(self::SMOOTH_S / $stepS));
        $least = (int) ceil(self::RPM_LOST_S / $stepS);
        $found = [];
        foreach ($run['rpm'] as $m => $rpm) {
            if (null === $rpm) {
                continue;
            }
            $speed = self::smoothed($rpm, $w);
            $output = self::smoothed($run['outputs'][$m], $w);
            $usual = self::usual($speed, $output);
            $held = $ran = 0;
            $from = $still = null;
            $stands = self::STILL_SHARE * max([0.0, ...$usual]);
            foreach ($speed as $i => $v) {
                $expected = $usual[(int) ($output[$i] / self::BIN_PCT)] ?? 0.0;
                $lost = $output[$i] >= self::LEAST_OUTPUT_PCT && $expected > 0 && $v < self::LOST_SHARE * $expected;
                $held = $lost ? $held + 1 : 0;
                $ran += $expected > 0 && $v >= self::BEHIND_SHARE * $expected && $output[$i] >= self::LEAST_OUTPUT_PCT ? 1 : 0;
                $still = $v <= $stands ? $still ?? $i : null;
                // What has not run yet is only starting.
                if (null === $from && $held >= $least && $ran * $stepS >= self::RAN_S) {
                    // Armed, a motor turns even when little is asked: where it stood still before it was called for, it was lost already.
                    $from = min($i - $held + 1, $still ?? $i);
                    // Back to where it began to fall behind; a mean over the past comes late by half its length.
                    $reach = max(0, $from - $w);
                    while ($from > $reach && $speed[$from - 1] < self::BEHIND_SHARE * ($usual[(int) ($output[$from - 1] / self::BIN_PCT)] ?? 0.0)) {
                        --$from;
                    }
                    $from = max(0, $from - intdiv($w, 2));
                } elseif (null !== $from && !$lost && $v > self::BEHIND_SHARE * $expected && $output[$i] >= self::LEAST_OUTPUT_PCT) {
                    $found[] = ['motor' => $m, 'from' => $from, 'to' => $i];
                    $from = null;
                }
            }
            if (null !== $from) {
                $found[] = ['motor' => $m, 'from' => $from, 'to' => \count($speed) - 1];
            }
        }
        usort($found, static fn (array $a, array $b): int => $a['from'] <=> $b['from']);

        return $found;
    }

    /**
     * Speed that an output gives, as its upper quartile: a motor lost for part of the flight does not draw it down.
     *
     * @param list<float> $speed
     * @param list<float> $output
     *
     * @return array<int, float> by bin of output; never falling; bins without data take that of the next lower one
     */
    private static function usual(array $speed, array $output): array
    {
        $bins = [];
        foreach ($output as $i => $v) {
            if (0 === $i % 4) {
                $bins[(int) ($v / self::BIN_PCT)][] = $speed[$i];
            }
        }
        $usual = [];
        $last = 0.0;
        for ($b = 0; $b <= (int) (100 / self::BIN_PCT); ++$b) {
            // A motor that is lost stands in its bins with nothing: more output never gives less speed.
            $last = isset($bins[$b]) && \count($bins[$b]) >= 10 ? max($last, Statistics::quantile($bins[$b], 0.75)) : $last;
            $usual[$b] = $last;
        }

        return $usual;
    }

    /**
     * @param list<float> $values
     *
     * @return list<float> means over the last $w
     */
    private static function smoothed(array $values, int $w): array
    {
        $out = [];
        $sum = 0.0;
        foreach ($values as $i => $v) {
            $sum += $v - ($i >= $w ? $values[$i - $w] : 0.0);
            $out[] = $sum / min($w, $i + 1);
        }

        return $out;
    }

    /** Whether a model explains enough of how this craft tilts, to accuse a motor with no other sign. */
    public static function mayAccuse(CraftModel $model): bool
    {
        return max($model->r2[0], $model->r2[1]) >= self::LEAST_R2;
    }

    /**
     * Stretches that are best explained by one motor pushing no more.
     *
     * @param bool $wary whether no other sign speaks for a loss
     * @param list<array{rate: list<list<float>>, accel: list<list<float>>, outputs: list<list<float>>}> $runs
     *
     * @return list<array{run: int, from: int, to: int, gains: array<int, float>}> gains by motor over the stretch
     */
    public static function of(array $runs, CraftModel $model, bool $wary): array
    {
        $least = $wary ? self::ALONE_GAIN : self::LEAST_GAIN;
        $found = [];
        foreach ($runs as $r => $run) {
            $steps = \count($run['rate'][0]);
            $thrust = CraftModel::thrust($run['outputs'], $model->lagS, $model->power, $model->stepS);
            $motors = \count($thrust);
            $gain = [];
            $score = array_fill(0, $motors, 0.0);
            $since = array_fill(0, $motors, 0);
            $peak = array_fill(0, $motors, 0.0);
            /** @var array{float, int, int, int}|null $best gain, motor, from, to */
            $best = null;
            for ($i = 0; $i < $steps; ++$i) {
                $now = [];
                for ($m = 0; $m < $motors; ++$m) {
                    $now[] = $thrust[$m][$i];
                }
                $expected = $model->expected($now, [$run['rate'][0][$i], $run['rate'][1][$i], $run['rate'][2][$i]]);
                $row = [];
                // A model that explains half of what it sees is off by as much where the craft is thrown about; with no sign
                // to go by, that counts.
                $variance = [];
                for ($a = 0; $a < 3; ++$a) {
                    $variance[] = $model->variance[$a] + ($wary ? (1 - $model->r2[$a]) * $expected[$a] * $expected[$a] : 0.0);
                }
                for ($m = 0; $m < $motors; ++$m) {
                    $part = [0.0, 0.0, 0.0];
                    for ($a = 0; $a < 3; ++$a) {
                        $off = $run['accel'][$a][$i] - $expected[$a];
                        // The loss takes away what this motor would have pushed; a gust is not allowed to be worth more than it.
                        $s = -$model->effect[$a][$m] * $now[$m];
                        $part[$a] = max(-6.0, min(6.0, (2 * $off * $s - $s * $s) / $variance[$a]));
                    }
                    // Losing thrust tilts; yaw alone, which also gusts and the pilot turn, can bear that out but not make it.
                    $tilt = $part[0] + $part[1];
                    $g = $tilt + ($wary ? min($part[2], max(0.0, $tilt)) : $part[2]);
                    $row[] = $g;
                    if ($score[$m] <= 0) {
                        $score[$m] = 0.0;
                        $since[$m] = $i;
                        $peak[$m] = 0.0;
                    }
                    $score[$m] += $g;
                    if ($score[$m] > $peak[$m]) {
                        $peak[$m] = $score[$m];
                        if ($score[$m] > $least && (null === $best || $score[$m] > $best[0])) {
                            $best = [$score[$m], $m, $since[$m], $i];
                        }
                    }
                }
                $gain[] = $row;
            }
            if (null !== $best && $best[3] - $best[2] >= self::LEAST_LOSS_S / $model->stepS) {
                $gains = array_fill(0, $motors, 0.0);
                // Early on the loss is purest: later the craft tumbles, and nothing is certain any more.
                $early = min($best[3], $best[2] + (int) round(0.5 / $model->stepS));
                for ($i = $best[2]; $i <= $early; ++$i) {
                    for ($m = 0; $m < $motors; ++$m) {
                        $gains[$m] += $gain[$i][$m];
                    }
                }
                $found[] = ['run' => $r, 'from' => $best[2], 'to' => $best[3], 'gains' => $gains];
            }
        }

        return $found;
    }

    /**
     * @param list<array{rate: list<list<float>>, accel: list<list<float>>, outputs: list<list<float>>}> $runs
     * @param array<int, array{int, int, int}>                                                            $spans run, first and last step
     * @param list<string>                                                                                $places
     */
    public static function learn(array $runs, array $spans, array $places, float $stepS): ?CraftModel
    {
        if ([] === $places) {
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
        foreach ($runs as $r => $run) {
            $n = \count($run['rate'][0]);
            $mark = array_fill(0, $n, true);
            foreach ($spans as [$of, $from, $to]) {
                if ($of === $r) {
                    // Nothing after the first sign, nor shortly before it, teaches what a whole craft does.
                    $first = $from - (int) (Incidents::BEFORE_SIGN_S / $stepS);
                    if ($first < 3 / $stepS) {
                        $first = max((int) (0.6 * $from), $from - (int) (0.3 / $stepS));
                    }
                    for ($i = max(0, $first); $i < $n; ++$i) {
                        $mark[$i] = false;
                    }
                }
            }
            // Where nothing showed, the first half teaches: a loss that others make up for would teach its own absence.
            $until = [] === $spans && $n * $stepS > 6.0 ? intdiv($n, 2) : $n - 5;
            for ($i = 0; $i < $n; ++$i) {
                if ($i < 60 || $i > $until) {
                    $mark[$i] = false;
                }
            }
            foreach ([0, 1, 2] as $axis) {
                array_push($rate[$axis], ...$run['rate'][$axis]);
                array_push($accel[$axis], ...$run['accel'][$axis]);
            }
            foreach ($run['outputs'] as $m => $output) {
                $outputs[$m] = [...$outputs[$m] ?? [], ...$output];
            }
            array_push($use, ...$mark);
        }
        // Long flights teach enough in their first minutes' worth of steps.
        $most = 30000;
        if (\count($use) > $most) {
            $rate = array_map(static fn (array $row): array => \array_slice($row, 0, $most), $rate);
            $accel = array_map(static fn (array $row): array => \array_slice($row, 0, $most), $accel);
            $outputs = array_map(static fn (array $row): array => \array_slice($row, 0, $most), $outputs);
            $use = \array_slice($use, 0, $most);
        }

        return CraftModel::fit($accel, $rate, array_values($outputs), $use, $stepS);
    }
}
