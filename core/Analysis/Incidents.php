<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/**
 * Finds the moments when it went wrong, and whose motor stopped pushing.
 *
 * Rotation counts as unasked by how far it lies outside all that was asked within the last tenth of a second: a lag is
 * no incident. The motor follows from the angular acceleration that the outputs do not explain: for each motor a
 * cumulative likelihood ratio (Page 1954) weighs "it pushes no more" against "all is well", step by step; its change point
 * is the onset, and the motor that explains most is named.
 */
final readonly class Incidents
{
    private const STEP_S = 0.002;
    public const FULL_PCT = 97.0;
    public const MERGE_S = 0.5;

    /** Unexplained acceleration is looked at from the onset over this time. */
    private const FROM_S = 0.0;

    private const TO_S = 0.13;

    /** Below this the two likeliest motors are too close to name one. */
    private const LEAST_MARGIN = 0.06;

    private const LEAST_FIT = 0.55;
    private const SURE_FIT = 0.9;

    /** A loss that other motors make up for can go unseen this long. */
    public const BEFORE_SIGN_S = 3.0;

    /** How late the change point of a loss can lie. */
    private const LATE_S = 0.06;

    private const CHECKLIST = ['the ESC', 'the motor: bearings, bell, windings', 'solder joints and wires of the motor and the signal', 'the prop and its nut', 'idle output too low', 'the sync-loss response is off or too gentle', 'commutation advance too high'];

    /** @return list<Incident> in order of time */
    public static function of(FlightLog $log): array
    {
        $places = $log->places();
        foreach (Traces::AXES as $axis) {
            if (!$log->has("setpoint_{$axis}_dps") || (!$log->has("rate_measured_{$axis}_dps") && !$log->has("rate_filtered_{$axis}_dps"))) {
                return [];
            }
        }
        $factor = max(1, (int) round(self::STEP_S * $log->clock->rateHz));
        $stepS = $factor / $log->clock->rateHz;
        $found = [];
        $runs = [];
        foreach ($log->clock->segments as $r => $segment) {
            if ($segment->count < 60 * $factor) {
                continue;
            }
            $column = static fn (string $name): array => Statistics::means($log->column($name)->values($segment->first, $segment->count), $factor);
            $rate = $set = $accel = [];
            foreach (Traces::AXES as $axis) {
                $rate[] = $column($log->has("rate_filtered_{$axis}_dps") ? "rate_filtered_{$axis}_dps" : "rate_measured_{$axis}_dps");
                $set[] = $column("setpoint_{$axis}_dps");
            }
            $outputs = array_map(static fn (string $p): array => $column("output_{$p}_pct"), $places);
            $runs[] = [
                'start' => $segment->startS, 'rate' => $rate, 'set' => $set, 'outputs' => $outputs, 'unasked' => UnaskedRotation::of($rate, $set, $stepS),
                'throttle' => $log->has('throttle_pct') ? $column('throttle_pct') : [],
                'rpm' => array_map(static fn (string $p): ?array => $log->has("rpm_$p") ? $column("rpm_$p") : null, $places),
                'accel' => array_map(static fn (array $w): array => self::slope($w, $stepS), $rate),
            ];
        }
        if ([] === $runs) {
            return [];
        }
        $limit = UnaskedRotation::limit($runs);
        $spans = [];
        foreach ($runs as $r => $run) {
            foreach (UnaskedRotation::spans($run, $limit, $stepS) as $span) {
                $spans[] = [$r, ...$span];
            }
        }
        // Speed is direct evidence. All that a craft does while short of a motor belongs to that loss.
        $dead = [];
        foreach ($runs as $r => $run) {
            foreach (MotorLosses::byRpm($run, $stepS) as $loss) {
                $dead[] = ['run' => $r] + $loss;
            }
        }
        $after = static fn (int $r, int $i): bool => [] !== array_filter($dead, static fn (array $d): bool => $d['run'] === $r && $i >= $d['from'] - (int) (self::MERGE_S / $stepS) && $i <= $d['to'] + (int) (self::BEFORE_SIGN_S / $stepS));
        $taught = [...$spans, ...array_map(static fn (array $d): array => [$d['run'], $d['from'], $d['to']], $dead)];
        $model = MotorLosses::learn($runs, $taught, $places, $stepS);
        $told = null;
        foreach ($dead as $d) {
            // A wreck has no motor that turns: another motor has a line of its own where it came clearly later, the same one where it had run again.
            if (null !== $told && $told['run'] === $d['run'] && $d['from'] <= ($told['motor'] === $d['motor'] ? $told['to'] : $told['from']) + (int) (self::BEFORE_SIGN_S / $stepS)) {
                continue;
            }
            $told = $d;
            $found[] = self::incident($runs[$d['run']], $d['from'], min($d['to'], $d['from'] + (int) (self::BEFORE_SIGN_S / $stepS)), $limit, $stepS, $places, $model, [], $d['motor']);
        }
        $spans = array_values(array_filter($spans, static fn (array $s): bool => !$after($s[0], $s[1])));
        // With no sign to go by, only a model that explains how this craft tilts may accuse a motor.
        $mayAccuse = null !== $model && ([] !== $spans || MotorLosses::mayAccuse($model));
        $losses = $mayAccuse ? MotorLosses::of($runs, $model, [] === $spans) : [];
        if (null !== $model && [] !== $losses) {
            // What came after a loss taught the model wrong: learn again without it, and look again.
            $model = MotorLosses::learn($runs, [...$taught, ...array_map(static fn (array $l): array => [$l['run'], $l['from'], $l['to']], $losses)], $places, $stepS) ?? $model;
            $losses = MotorLosses::of($runs, $model, [] === $spans);
        }
        foreach ($losses as $loss) {
            [$r, $from, $to] = [$loss['run'], $loss['from'], $loss['to']];
            if ($after($r, $from)) {
                continue;
            }
            foreach ($spans as $k => [$of, $first, $last]) {
                // What a craft short of a motor does afterwards belongs to its loss.
                if ($of === $r && $first >= $from - (int) (self::MERGE_S / $stepS) && $first <= $to + (int) (self::BEFORE_SIGN_S / $stepS)) {
                    $to = max($to, $last);
                    unset($spans[$k]);
                }
            }
            $found[] = self::incident($runs[$r], $from, $to, $limit, $stepS, $places, $model, $loss['gains']);
        }
        foreach ($spans as [$r, $from, $to]) {
            $found[] = self::incident($runs[$r], $from, $to, $limit, $stepS, $places, $model, []);
        }
        usort($found, static fn (Incident $a, Incident $b): int => $a->atS <=> $b->atS);

        return $found;
    }

    /**
     * @param list<float> $w
     *
     * @return list<float> change per second, over two steps to either side
     */
    private static function slope(array $w, float $stepS): array
    {
        $n = \count($w);
        $out = [];
        for ($i = 0; $i < $n; ++$i) {
            $a = max(0, $i - 2);
            $b = min($n - 1, $i + 2);
            $out[] = $b > $a ? ($w[$b] - $w[$a]) / (($b - $a) * $stepS) : 0.0;
        }

        return $out;
    }

    /**
     * @param array{start: float, rate: list<list<float>>, set: list<list<float>>, outputs: list<list<float>>, unasked: list<list<float>>, throttle: list<float>, rpm: list<list<float>|null>, accel: list<list<float>>} $run
     * @param list<string>                                                                                                                                                                                                 $places
     * @param array<int, float>                                                                                                                                                                                            $gains  by motor, where a loss was found; empty for rotation alone
     * @param int|null $dead motor whose logged speed says that it stopped
     */
    private static function incident(array $run, int $from, int $to, float $limit, float $stepS, array $places, ?CraftModel $model, array $gains, ?int $dead = null): Incident
    {
        $n = \count($run['rate'][0]);
        $thrust = null === $model ? [] : CraftModel::thrust($run['outputs'], $model->lagS, $model->power, $stepS);
        // The change point of a loss can lie some steps late: the rotation itself is the earliest sign.
        $onset = self::onset($run, $from, $limit, $stepS, $model, $thrust);
        if ([] !== $gains || null !== $dead) {
            // Further back than this it is the move before.
            $onset = max($onset, $from - (int) round(self::LATE_S / $stepS));
        }
        $ranked = [];
        $rotation = [0.0, 0.0, 0.0];
        $against = [];
        $evidence = 'rotation that the outputs do not explain';
        if (null !== $model) {
            $a = max(0, $onset + (int) round(self::FROM_S / $stepS));
            $b = min($n - 1, $onset + (int) round(self::TO_S / $stepS));
            [$rotation, $fits] = self::fits($run, $model, $thrust, $places, $a, $b);
            $most = [] === $gains ? 1.0 : max(1.0, ...$gains);
            foreach ($fits as $m => $fit) {
                $ranked[] = ['place' => $places[$m], 'fit' => round([] === $gains ? $fit + self::calledForMore($run['outputs'], $m, $onset, $stepS) : ($gains[$m] ?? 0.0) / $most, 3)];
            }
        }
        $byRpm = $dead ?? self::slowest($run, $onset, $stepS);
        usort($ranked, static fn (array $p, array $q): int => $q['fit'] <=> $p['fit']);
        $place = null;
        $margin = [] === $ranked ? 0.0 : $ranked[0]['fit'] - ($ranked[1]['fit'] ?? 0.0);
        if ([] !== $ranked && $ranked[0]['fit'] >= ([] === $gains ? self::SURE_FIT : self::LEAST_FIT) && $margin >= self::LEAST_MARGIN) {
            $place = $ranked[0]['place'];
        }
        if (null !== $byRpm) {
            if (null !== $place && $places[$byRpm] !== $place) {
                $against[] = 'The rotation alone would point at '.str_replace('_', ' ', $place).'; the logged rpm outranks it.';
            }
            $place = $places[$byRpm];
            $margin = max($margin, 0.5);
            $evidence = 'its rpm fell while more was asked of it';
        }
        if (null === $place) {
            $against[] = 'No single motor fits the rotation clearly. Rpm in the log would tell.';
        } else {
            $m = (int) array_search($place, $places, true);
            if (!self::everFull($run['outputs'][$m], $onset, $stepS)) {
                $against[] = 'It was never called for full output afterwards, as a motor that stops pushing usually is.';
            }
        }

        return new Incident(
            $run['start'] + $onset * $stepS, $run['start'] + $to * $stepS, $place, round($margin, 3), \array_slice($ranked, 0, 6),
            self::timeline($run, $onset, $to, $stepS, $places, $place), $rotation, $against, null === $place ? [] : self::CHECKLIST, $evidence,
        );
    }

    /**
     * Back from the first clear sign to where the rotation nobody asked for began to grow.
     *
     * @param array{rate: list<list<float>>, accel: list<list<float>>, unasked: list<list<float>>, outputs: list<list<float>>} $run
     * @param list<list<float>>                                                                                                $thrust
     */
    private static function onset(array $run, int $from, float $limit, float $stepS, ?CraftModel $model, array $thrust): int
    {
        $reach = max(1, $from - (int) round(0.35 / $stepS));
        if (null === $model) {
            for ($i = $from; $i > $reach; --$i) {
                if (max(abs($run['unasked'][0][$i]), abs($run['unasked'][1][$i]), abs($run['unasked'][2][$i])) < 0.1 * $limit) {
                    return $i;
                }
            }

            return $reach;
        }
        // The acceleration that nothing explains, smoothed over 20 ms, against what is usual a second before.
        $w = (int) max(2, round(0.02 / $stepS));
        $size = [];
        $begin = max(0, $from - (int) round(1.4 / $stepS));
        for ($i = $begin; $i <= $from; ++$i) {
            $size[$i] = self::surprise($run, $model, $thrust, $i);
        }
        $usual = [];
        foreach ($size as $i => $v) {
            if ($i < $reach) {
                $usual[] = $v;
            }
        }
        $base = [] === $usual ? 0.0 : Statistics::quantile($usual, 0.9);
        $smooth = static fn (int $i): float => array_sum(\array_slice($size, max(0, $i - $w - $begin), $w)) / $w;
        $peak = 0.0;
        for ($i = $reach; $i <= $from; ++$i) {
            $peak = max($peak, $smooth($i));
        }
        $threshold = max(1.6 * $base, 0.3 * $peak);
        // The earliest stretch that stays over it until the clear sign, forgiving dips shorter than 30 ms.
        $onset = $from;
        $quiet = 0;
        for ($i = $from; $i > $reach; --$i) {
            if ($smooth($i) >= $threshold) {
                $onset = $i - $w;
                $quiet = 0;
            } elseif (++$quiet > 0.03 / $stepS) {
                break;
            }
        }

        return max($reach, $onset);
    }

    /**
     * @param array{rate: list<list<float>>, accel: list<list<float>>} $run
     * @param list<list<float>>                                        $thrust
     */
    private static function surprise(array $run, CraftModel $model, array $thrust, int $i): float
    {
        $expected = $model->expected(array_column($thrust, $i), [$run['rate'][0][$i], $run['rate'][1][$i], $run['rate'][2][$i]]);
        $sum = 0.0;
        foreach ([0, 1] as $axis) {
            $sum += ($run['accel'][$axis][$i] - $expected[$axis]) ** 2;
        }

        return sqrt($sum);
    }

    /**
     * @param array{rate: list<list<float>>, accel: list<list<float>>} $run
     * @param list<list<float>>                                        $thrust
     * @param list<string>                                             $places
     *
     * @return array{array{float, float, float}, list<float>} mean unexplained acceleration, and how each motor's loss resembles it: the cosine
     */
    private static function fits(array $run, CraftModel $model, array $thrust, array $places, int $a, int $b): array
    {
        // A flight too calm to teach what the motors do: then the acceleration itself stands against where the motors sit.
        $taught = MotorLosses::mayAccuse($model);
        $effect = $taught ? $model->effect : self::bySide($places);
        $mean = [0.0, 0.0, 0.0];
        for ($i = $a; $i <= $b; ++$i) {
            $expected = $taught ? $model->expected(array_column($thrust, $i), [$run['rate'][0][$i], $run['rate'][1][$i], $run['rate'][2][$i]]) : [0.0, 0.0, 0.0];
            foreach ([0, 1, 2] as $axis) {
                $mean[$axis] += ($run['accel'][$axis][$i] - $expected[$axis]) / ($b - $a + 1);
            }
        }
        // Each axis counts by its own size, and by how well the flight taught it.
        $weight = [];
        foreach ([0, 1, 2] as $axis) {
            $size = sqrt(array_sum(array_map(static fn (float $e): float => $e * $e, $effect[$axis])) / max(1, \count($thrust)));
            $weight[] = $size > 0 ? ($taught ? sqrt(max(0.02, $model->r2[$axis])) : 1.0) * (2 === $axis ? 0.6 : 1.0) / $size : 0.0;
        }
        $fits = [];
        foreach (array_keys($thrust) as $m) {
            $dot = $vv = $ee = 0.0;
            foreach ([0, 1, 2] as $axis) {
                $v = $mean[$axis] * $weight[$axis];
                $e = -$effect[$axis][$m] * $weight[$axis];
                $dot += $v * $e;
                $vv += $v * $v;
                $ee += $e * $e;
            }
            $fits[] = $vv > 0 && $ee > 0 ? $dot / sqrt($vv * $ee) : 0.0;
        }

        return [[round($mean[0], 1), round($mean[1], 1), round($mean[2], 1)], $fits];
    }

    /**
     * What each motor does to roll and pitch by where it sits alone; nothing where its place does not tell.
     *
     * @param list<string> $places
     *
     * @return array<int, list<float>> by axis and motor
     */
    private static function bySide(array $places): array
    {
        $effect = [[], [], []];
        foreach ($places as $place) {
            [$forward, $right] = SignCheck::side($place) ?? [0, 0];
            $effect[0][] = (float) -$right;
            $effect[1][] = (float) $forward;
            $effect[2][] = 0.0;
        }

        return $effect;
    }

    /**
     * A motor that is called for more while the craft turns towards it confirms itself; one that is let go speaks against itself.
     *
     * @param list<list<float>> $outputs
     */
    private static function calledForMore(array $outputs, int $m, int $onset, float $stepS): float
    {
        $before = self::mean($outputs[$m], $onset - (int) (0.06 / $stepS), $onset);
        $after = self::mean($outputs[$m], $onset + (int) (0.03 / $stepS), $onset + (int) (0.15 / $stepS));
        $all = [];
        foreach ($outputs as $output) {
            $all[] = self::mean($output, $onset + (int) (0.03 / $stepS), $onset + (int) (0.15 / $stepS)) - self::mean($output, $onset - (int) (0.06 / $stepS), $onset);
        }

        return 0.25 * max(-1.0, min(1.0, ($after - $before - array_sum($all) / \count($all)) / 40));
    }

    /** @param list<float> $row */
    private static function mean(array $row, int $from, int $to): float
    {
        $part = \array_slice($row, max(0, $from), max(1, $to - max(0, $from)));

        return [] === $part ? 0.0 : array_sum($part) / \count($part);
    }

    /**
     * The motor whose rpm fell against its output, where rpm was logged.
     *
     * @param array{outputs: list<list<float>>, rpm: list<list<float>|null>} $run
     */
    private static function slowest(array $run, int $onset, float $stepS): ?int
    {
        $worst = null;
        $least = 0.72;
        foreach ($run['rpm'] as $m => $rpm) {
            if (null === $rpm) {
                continue;
            }
            $before = self::mean($rpm, $onset - (int) (0.4 / $stepS), $onset - (int) (0.02 / $stepS)) / max(5.0, self::mean($run['outputs'][$m], $onset - (int) (0.4 / $stepS), $onset - (int) (0.02 / $stepS)));
            $after = self::mean($rpm, $onset + (int) (0.06 / $stepS), $onset + (int) (0.2 / $stepS)) / max(5.0, self::mean($run['outputs'][$m], $onset + (int) (0.06 / $stepS), $onset + (int) (0.2 / $stepS)));
            if ($before > 0 && $after / $before < $least) {
                $least = $after / $before;
                $worst = $m;
            }
        }

        return $worst;
    }

    /** @param list<float> $output */
    private static function everFull(array $output, int $onset, float $stepS): bool
    {
        return max([0.0, ...\array_slice($output, $onset, (int) (0.6 / $stepS))]) >= 90;
    }

    /**
     * @param array{start: float, outputs: list<list<float>>, rate: list<list<float>>, unasked: list<list<float>>} $run
     * @param list<string>                                                                                         $places
     *
     * @return list<array{at_s: float, what: string}>
     */
    private static function timeline(array $run, int $onset, int $to, float $stepS, array $places, ?string $place): array
    {
        $at = static fn (int $i): float => round($run['start'] + $i * $stepS, 3);
        $events = [['at_s' => $at($onset), 'what' => 'rotation that nobody asked for begins'.(null === $place ? '' : ': '.str_replace('_', ' ', $place).' stops pushing')]];
        $end = min(\count($run['rate'][0]) - 1, $to + (int) (0.3 / $stepS));
        foreach (Traces::AXES as $axis => $name) {
            for ($i = $onset; $i <= $end; ++$i) {
                if (abs($run['unasked'][$axis][$i]) > 150) {
                    $way = [['rolls left', 'rolls right'], ['drops its nose', 'lifts its nose'], ['turns left', 'turns right']][$axis][$run['rate'][$axis][$i] > 0 ? 1 : 0];
                    $events[] = ['at_s' => $at($i), 'what' => "it $way faster than anything asked ($name ".round($run['rate'][$axis][$i]).' deg/s)'];
                    break;
                }
            }
        }
        foreach ($run['outputs'] as $m => $output) {
            for ($i = $onset; $i <= $end; ++$i) {
                if (($output[$i] ?? 0) >= self::FULL_PCT) {
                    $events[] = ['at_s' => $at($i), 'what' => str_replace('_', ' ', $places[$m]).' is called for full output, in answer'];
                    break;
                }
            }
        }
        usort($events, static fn (array $a, array $b): int => $a['at_s'] <=> $b['at_s']);

        return $events;
    }
}
