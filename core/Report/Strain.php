<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\OutputTop;
use Ortholex\Core\FlightLog\Traces;

/**
 * What hard flying showed: whether there was thrust to spare, and how much the craft shook in its own wash, which it meets where the
 * throttle was dropped.
 */
final readonly class Strain
{
    /** So many samples a second are looked at. */
    private const LOOKED_AT_HZ = 250.0;

    /** So many of all the others at once. */
    private const PIECE = 65_536;

    /** Of the highest output that is ever sent. */
    private const FULL = 0.99;

    /** A drop: so much less throttle than within the time before; the craft sinks into its wash for the time after. % and s. */
    private const DROP_PCT = 20.0;

    private const BEFORE_S = 0.25;
    private const AFTER_S = 0.6;

    /** Shaking is what is faster than the stick and slower than motors and frame: between moving means of these lengths, s. */
    private const SLOW_S = 0.15;

    private const FAST_S = 0.012;

    /** Only where the stick rests for so long to both sides, within so much: else what is late would count as shaking. s and deg/s. */
    private const RESTS_S = 0.1;

    private const RESTS_DPS = 60.0;

    /** Sampled more slowly than this, shaking is not in the log. */
    private const LEAST_HZ = 90.0;

    /** Less than this is too little to tell from, s. */
    private const LEAST_S = 0.3;

    /**
     * @param float|null           $fullShare share of the flight with an output at its upper end; null where outputs were not logged
     * @param float                $longestS  the longest that one stood there, s
     * @param int                  $drops     how often the throttle was dropped
     * @param array<string, float> $washDps   by axis: shaking after those, deg/s RMS; empty where it cannot be told
     * @param array<string, float> $calmDps   the same of the rest of the flight
     */
    private function __construct(
        public ?float $fullShare,
        public float $longestS,
        public int $drops,
        public array $washDps,
        public array $calmDps,
    ) {
    }

    public static function of(FlightLog $log): self
    {
        $factor = max(1, (int) round($log->clock->rateHz / self::LOOKED_AT_HZ));
        $hz = $log->clock->rateHz / $factor;
        [$share, $longest] = self::full($log);
        $drops = 0;
        $wash = $calm = [];
        foreach ($hz < self::LEAST_HZ ? [] : $log->clock->segments as $segment) {
            $of = static fn (string $trace): array => $log->has($trace)
                ? $log->column($trace)->decimated($factor, $segment->first, $segment->count)
                : [];
            [$washed, $here] = self::drops($of('throttle_pct'), $hz);
            $drops += $here;
            foreach (Axis::cases() as $axis) {
                $rate = $log->rateAsFlown($axis);
                $set = $of(Traces::setpoint($axis));
                if (null === $rate || [] === $set || [] === $washed) {
                    continue;
                }
                foreach (self::shaking($of($rate), $set, $hz) as $i => $dps) {
                    if ($washed[$i]) {
                        $wash[$axis->value][] = $dps * $dps;
                    } else {
                        $calm[$axis->value][] = $dps * $dps;
                    }
                }
            }
        }
        $enough = static fn (array $squares): bool => \count($squares) >= self::LEAST_S * $hz;
        $rms = static fn (array $squares): float => sqrt(array_sum($squares) / \count($squares));

        return new self(
            $share,
            $longest,
            $drops,
            array_map($rms, array_filter($wash, $enough)),
            array_map($rms, array_filter($calm, $enough)),
        );
    }

    /** @return array{float|null, float} share of the flight with an output at its upper end, and the longest, s */
    private static function full(FlightLog $log): array
    {
        $places = $log->places();
        if ([] === $places) {
            return [null, 0.0];
        }
        $end = self::FULL * OutputTop::ofLog($log);
        $columns = array_map(static fn (string $place): Column => $log->column("output_{$place}_pct"), $places);
        $at = $count = $longest = 0;
        foreach ($log->clock->segments as $segment) {
            $held = 0;
            for ($from = 0; $from < $segment->count; $from += self::PIECE) {
                $most = min(self::PIECE, $segment->count - $from);
                $all = array_map(static fn (Column $c): array => $c->values($segment->first + $from, $most), $columns);
                for ($i = 0; $i < $most; ++$i, ++$count) {
                    $full = false;
                    foreach ($all as $one) {
                        $full = $full || $one[$i] >= $end;
                    }
                    $held = $full ? $held + 1 : 0;
                    $at += $full ? 1 : 0;
                    $longest = max($longest, $held);
                }
            }
        }

        return [$at / max(1, $count), $longest / $log->clock->rateHz];
    }

    /**
     * @param list<float> $throttle %
     *
     * @return array{list<bool>, int} by sample, whether it follows a drop; and how many drops
     */
    private static function drops(array $throttle, float $hz): array
    {
        $before = max(1, (int) round(self::BEFORE_S * $hz));
        $after = (int) round(self::AFTER_S * $hz);
        $washed = [];
        $until = -1;
        $drops = 0;
        foreach ($throttle as $i => $now) {
            $most = max($now, ...\array_slice($throttle, max(0, $i - $before), $before));
            if ($i > $until && $most - $now > self::DROP_PCT) {
                ++$drops;
                $until = $i + $after;
            }
            $washed[] = $i <= $until;
        }

        return [$washed, $drops];
    }

    /**
     * @param list<float> $rate deg/s
     * @param list<float> $set  deg/s
     *
     * @return array<int, float> deg/s, by sample at which the stick rests
     */
    private static function shaking(array $rate, array $set, float $hz): array
    {
        $off = array_map(static fn (float $r, float $s): float => $r - $s, $rate, $set);
        $fast = self::smoothed($off, self::FAST_S * $hz);
        $slow = self::smoothed($off, self::SLOW_S * $hz);
        $rests = (int) round(self::RESTS_S * $hz);
        $out = [];
        for ($i = $rests, $n = \count($off) - $rests; $i < $n; ++$i) {
            $near = [$set[$i], ...\array_slice($set, $i - $rests, 2 * $rests + 1)];
            if (max($near) - min($near) < self::RESTS_DPS) {
                $out[$i] = $fast[$i] - $slow[$i];
            }
        }

        return $out;
    }

    /**
     * @param list<float> $values
     *
     * @return list<float> the mean over so many samples around each
     */
    private static function smoothed(array $values, float $over): array
    {
        $half = (int) floor($over / 2);
        $sums = [0.0];
        foreach ($values as $i => $v) {
            $sums[] = $sums[$i] + $v;
        }
        $n = \count($values);
        $out = [];
        for ($i = 0; $i < $n; ++$i) {
            $from = max(0, $i - $half);
            $to = min($n, $i + $half + 1);
            $out[] = ($sums[$to] - $sums[$from]) / ($to - $from);
        }

        return $out;
    }
}
