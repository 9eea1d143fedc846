<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/**
 * Whether a log counts its axes as we do: rotation must follow its command, and what the motors do to the rotation
 * (CraftModel) must point as the mixer says. The mixer is known from the motors' places for roll and pitch alone; for yaw, and
 * where the places are not known, only command and rotation can be held against each other.
 */
final readonly class SignCheck
{
    private const FOLLOWS = 0.5;
    private const LEAST_DPS = 10.0;
    private const POINTS = 0.6;
    private const STEP_S = 0.005;

    /** Steps that are looked at: forty seconds tell as much as an hour. */
    private const MOST_STEPS = 8000;

    /**
     * @param float|null   $follows how rotation correlates with its command, −1 to 1; null when nothing moved
     * @param float|null   $points  cosine of the motors' effect against the mixer's; null when it cannot be told
     * @param list<string> $turn    traces that would have to be turned about; empty when all is as it should be
     */
    private function __construct(public string $axis, public ?float $follows, public ?float $points, public array $turn, public string $what)
    {
    }

    /** @return list<self> one per axis that was logged */
    public static function of(FlightLog $log): array
    {
        $points = self::mixer($log);
        $checks = [];
        foreach (Traces::AXES as $axis) {
            $rates = array_values(array_filter(["rate_measured_{$axis}_dps", "rate_filtered_{$axis}_dps"], $log->has(...)));
            if ([] === $rates) {
                continue;
            }
            $set = "setpoint_{$axis}_dps";
            $follows = $log->has($set) ? self::correlation($log, $set, $rates[0]) : null;
            $p = $points[$axis] ?? null;
            $against = null !== $follows && $follows < -self::FOLLOWS;
            $along = null !== $follows && $follows > self::FOLLOWS;
            $wrong = null !== $p && $p < -self::POINTS;
            $right = null !== $p && $p > self::POINTS;
            $terms = array_values(array_filter(array_map(static fn (string $t): string => "term_{$t}_$axis", ['p', 'i', 'd', 'ff']), $log->has(...)));
            [$turn, $what] = match (true) {
                $wrong && $along => [[$set, ...$rates, ...$terms], ucfirst($axis).' is counted the other way round in this log: command and rotation agree, but the motors turn it against both.'],
                $wrong && $against => [$rates, ucfirst($axis).' runs against its command, and against what the motors do: the sign of the rotation is turned.'],
                $right && $against => [[$set], ucfirst($axis).' runs against its command, but as the motors turn it: the sign of the command is turned.'],
                $against => [$rates, ucfirst($axis).' runs against its command: in this log one of the two has its sign turned.'],
                default => [[], ''],
            };
            $checks[] = new self($axis, $follows, $p, $turn, $what);
        }

        return $checks;
    }

    private static function correlation(FlightLog $log, string $set, string $rate): ?float
    {
        $factor = max(1, (int) ($log->clock->rateHz / 100));
        $x = Statistics::means($log->trace($set), $factor);
        $y = Statistics::means($log->trace($rate), $factor);
        $xy = $xx = $yy = 0.0;
        foreach ($x as $i => $v) {
            $xy += $v * $y[$i];
            $xx += $v * $v;
            $yy += $y[$i] ** 2;
        }

        return [] !== $x && $xx > 0 && $yy > 0 && sqrt($xx / \count($x)) > self::LEAST_DPS ? $xy / sqrt($xx * $yy) : null;
    }

    /** @return array<string, float> cosine by axis */
    private static function mixer(FlightLog $log): array
    {
        $places = $log->places();
        $sides = array_map(self::side(...), $places);
        if (\count($places) < 3 || \in_array(null, $sides, true)) {
            return [];
        }
        $factor = max(1, (int) round(self::STEP_S * $log->clock->rateHz));
        $stepS = $factor / $log->clock->rateHz;
        $longest = $log->clock->segments[0];
        foreach ($log->clock->segments as $segment) {
            $longest = $segment->count > $longest->count ? $segment : $longest;
        }
        $count = min($longest->count, self::MOST_STEPS * $factor);
        $column = static fn (string $name): array => Statistics::means($log->column($name)->values($longest->first, $count), $factor);
        $rate = $accel = [];
        foreach (Traces::AXES as $axis) {
            $name = $log->has("rate_filtered_{$axis}_dps") ? "rate_filtered_{$axis}_dps" : "rate_measured_{$axis}_dps";
            if (!$log->has($name)) {
                return [];
            }
            $w = $column($name);
            $rate[] = $w;
            $a = [];
            foreach ($w as $i => $v) {
                $a[] = (($w[$i + 1] ?? $v) - ($w[$i - 1] ?? $v)) / (2 * $stepS);
            }
            $accel[] = $a;
        }
        $outputs = array_map(static fn (string $p): array => $column("output_{$p}_pct"), $places);
        $model = CraftModel::fit($accel, $rate, $outputs, array_fill(0, \count($rate[0]), true), $stepS);
        if (null === $model) {
            return [];
        }
        $cosines = [];
        foreach ([0 => 'roll', 1 => 'pitch'] as $i => $axis) {
            $dot = $ee = $mm = 0.0;
            foreach ($sides as $m => $side) {
                // Roll: minus right; pitch: plus forward. The mean of all motors says nothing of the direction.
                $prior = 0 === $i ? -$side[1] : $side[0];
                $dot += $model->effect[$i][$m] * $prior;
                $ee += $model->effect[$i][$m] ** 2;
                $mm += $prior ** 2;
            }
            if ($ee > 0 && $mm > 0 && $model->r2[$i] > 0.1) {
                $cosines[$axis] = $dot / sqrt($ee * $mm);
            }
        }

        return $cosines;
    }

    /** @return array{int, int}|null forward and right of a motor's place, each −1, 0 or 1; null where the name does not tell */
    public static function side(string $place): ?array
    {
        $words = explode('_', $place);
        $known = ['front' => [1, 0], 'rear' => [-1, 0], 'right' => [0, 1], 'left' => [0, -1]];
        $at = [0, 0];
        foreach ($words as $word) {
            if (!isset($known[$word])) {
                return null;
            }
            $at = [$at[0] + $known[$word][0], $at[1] + $known[$word][1]];
        }

        return $at;
    }
}
