<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Motion;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\OutputTop;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/** One gap-free stretch of a flight, decimated to about two milliseconds a step, with what an incident is looked for in. */
final readonly class FlightRun
{
    private const STEP_S = 0.002;

    /** Less than this is no pack that flies a craft, V; and what a voltage can be of its median. */
    private const LEAST_PACK_V = 2.5;

    private const LEAST_SUPPLY = 0.6;
    private const MOST_SUPPLY = 1.4;

    /** A stretch of fewer steps teaches and tells nothing. */
    private const LEAST_STEPS = 60;

    /**
     * @param int                    $number   of the stretch among those looked at
     * @param float                  $startS   when it begins, by the log's clock
     * @param list<list<float>>      $rate     by axis, deg/s
     * @param list<list<float>>      $set      by axis, deg/s; empty where not all of them were logged
     * @param list<list<float>>      $accel    by axis, deg/s²
     * @param list<list<float>>      $unasked  by axis: rotation outside all that was asked lately, deg/s
     * @param list<list<float>>      $outputs  by motor, %
     * @param list<list<float>|null> $rpm      by motor, null where it was not logged
     * @param float                  $topPct   the upper end of the outputs over the whole flight, %
     * @param list<float>            $throttle %; empty where it was not logged
     * @param list<int>              $glitches steps at which a rate was out and back within a moment
     * @param list<float>            $supply   pack voltage over that of the whole flight's median; empty where it was not logged
     */
    private function __construct(
        public int $number,
        public float $startS,
        public float $stepS,
        public array $rate,
        public array $set,
        public array $accel,
        public array $unasked,
        public array $outputs,
        public array $rpm,
        public float $topPct,
        public array $throttle,
        public array $supply,
        public array $glitches,
    ) {
    }

    /** @return list<self> none where the rotation of an axis was not logged */
    public static function allOf(FlightLog $log): array
    {
        foreach (Axis::cases() as $axis) {
            if (null === $log->rateAsFlown($axis)) {
                return [];
            }
        }
        $factor = max(1, (int) round(self::STEP_S * $log->clock->rateHz));
        $runs = [];
        $top = OutputTop::ofLog($log);
        foreach ($log->clock->segments as $segment) {
            if ($segment->count >= self::LEAST_STEPS * $factor) {
                $runs[] = self::ofSegment($log, $segment, $factor, \count($runs), $top);
            }
        }

        return $runs;
    }

    public function count(): int
    {
        return \count($this->rate[0]);
    }

    /** Steps in a time, s, cut off. */
    public function steps(float $seconds): int
    {
        return (int) ($seconds / $this->stepS);
    }

    /** Steps in a time, s, to the nearest. */
    public function nearestSteps(float $seconds): int
    {
        return (int) round($seconds / $this->stepS);
    }

    public function timeAt(int $step): float
    {
        return $this->startS + $step * $this->stepS;
    }

    /** @return array{float, float, float} deg/s */
    public function rateAt(int $step): array
    {
        return [$this->rate[0][$step], $this->rate[1][$step], $this->rate[2][$step]];
    }

    /** Rotation of the axis that strays most from what was asked, deg/s. */
    public function strayAt(int $step): float
    {
        return max(abs($this->unasked[0][$step]), abs($this->unasked[1][$step]), abs($this->unasked[2][$step]));
    }

    private static function ofSegment(FlightLog $log, Segment $segment, int $factor, int $number, float $topPct): self
    {
        $column = static fn (string $name): array => Statistics::decimated(
            $log->column($name)->values($segment->first, $segment->count),
            $factor,
        );
        $stepS = $factor / $log->clock->rateHz;
        $rate = $set = $glitches = [];
        foreach (Axis::cases() as $axis) {
            $name = (string) $log->rateAsFlown($axis);
            $raw = $log->column($name)->values($segment->first, $segment->count);
            $w = Statistics::decimated(Spikes::without($raw), $factor);
            $alone = array_map(static fn (int $i): int => min(\count($w) - 1, intdiv($i, $factor)), Spikes::at($raw));
            array_push($glitches, ...$alone, ...Spikes::briefly($w, $stepS));
            $rate[] = $w;
        }
        if (!array_filter(Axis::cases(), static fn (Axis $a): bool => !$log->has(Traces::setpoint($a)))) {
            $set = array_map(static fn (Axis $a): array => $column(Traces::setpoint($a)), Axis::cases());
        }
        sort($glitches);
        $places = $log->places();

        return new self(
            $number,
            $segment->startS,
            $stepS,
            $rate,
            $set,
            array_map(static fn (array $w): array => self::slope($w, $stepS), $rate),
            [] === $set ? [] : Asked::outside($rate, $set, $stepS),
            array_map(static fn (string $p): array => $column("output_{$p}_pct"), $places),
            array_map(static fn (string $p): ?array => $log->has("rpm_$p") ? $column("rpm_$p") : null, $places),
            $topPct,
            $log->has('throttle_pct') ? $column('throttle_pct') : [],
            self::supply($log->has('battery_v') ? $column('battery_v') : []),
            $glitches,
        );
    }

    /**
     * @param list<float> $volts
     *
     * @return list<float> over their median; empty where they are no voltage of a pack
     */
    private static function supply(array $volts): array
    {
        $median = [] === $volts ? 0.0 : Statistics::median($volts);
        if ($median < self::LEAST_PACK_V) {
            return [];
        }

        return array_map(static fn (float $v): float => max(self::LEAST_SUPPLY, min(self::MOST_SUPPLY, $v / $median)), $volts);
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
}
