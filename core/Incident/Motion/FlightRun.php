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

    /** A longer stretch is cut, as a gap would cut it, s. */
    private const LONGEST_S = 600.0;

    /** A stretch of fewer steps teaches and tells nothing. */
    private const LEAST_STEPS = 60;

    /**
     * @param int                    $number   of the stretch among those looked at
     * @param float                  $startS   when it begins, by the log's clock
     * @param list<list<float>>      $rate     by axis, deg/s
     * @param list<list<float>>      $set      by axis, deg/s; empty where not all of them were logged
     * @param list<list<float>>      $unasked  by axis: rotation outside all that was asked lately, deg/s
     * @param list<list<float>>      $outputs  by motor, %
     * @param list<string|null>      $speeds   by motor: its rpm, packed as it is seldom asked for; null where it was not logged
     * @param float                  $topPct   the upper end of the outputs over the whole flight, %
     * @param list<float>            $throttle %; empty where it was not logged
     * @param list<int>              $glitches steps at which a rate was out and back within a moment
     * @param string                 $volts    pack voltage over that of the whole flight's median, packed; '' where it was not logged
     */
    private function __construct(
        public int $number,
        public float $startS,
        public float $stepS,
        public array $rate,
        public array $set,
        public array $unasked,
        public array $outputs,
        private array $speeds,
        public float $topPct,
        public array $throttle,
        private string $volts,
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
            foreach (self::parts($segment, $log->clock->rateHz) as $part) {
                if ($part->count >= self::LEAST_STEPS * $factor) {
                    $runs[] = self::ofSegment($log, $part, $factor, \count($runs), $top);
                }
            }
        }

        return $runs;
    }

    /** @return list<Segment> of about one length, none longer than what is looked at in one go */
    private static function parts(Segment $segment, float $rateHz): array
    {
        $count = max(1, (int) ceil($segment->count / $rateHz / self::LONGEST_S));
        $parts = [];
        for ($k = 0; $k < $count; ++$k) {
            $from = intdiv($k * $segment->count, $count);
            $to = intdiv(($k + 1) * $segment->count, $count);
            $parts[] = new Segment($segment->first + $from, $to - $from, $segment->startS + $from / $rateHz);
        }

        return $parts;
    }

    public function count(): int
    {
        return \count($this->rate[0]);
    }

    public function hasRpm(int $motor): bool
    {
        return isset($this->speeds[$motor]);
    }

    /** @return list<float>|null null where it was not logged */
    public function rpm(int $motor): ?array
    {
        $packed = $this->speeds[$motor] ?? null;

        return null === $packed ? null : FlightLog::unpackFloats($packed);
    }

    /** @return list<float> pack voltage over that of the whole flight's median; empty where it was not logged */
    public function supply(): array
    {
        return FlightLog::unpackFloats($this->volts);
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
        $column = static fn (string $name): array => $log->column($name)->decimated($factor, $segment->first, $segment->count);
        $stepS = $factor / $log->clock->rateHz;
        $rate = $set = $glitches = [];
        foreach (Axis::cases() as $axis) {
            $name = (string) $log->rateAsFlown($axis);
            $raw = $log->column($name)->values($segment->first, $segment->count);
            [$w, $alone] = Spikes::without($raw, $factor);
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
            [] === $set ? [] : Asked::outside($rate, $set, $stepS),
            array_map(static fn (string $p): array => $column("output_{$p}_pct"), $places),
            array_map(static fn (string $p): ?string => $log->has("rpm_$p") ? FlightLog::packFloats($column("rpm_$p")) : null, $places),
            $topPct,
            $log->has('throttle_pct') ? $column('throttle_pct') : [],
            FlightLog::packFloats(self::over($log->has('battery_v') ? $column('battery_v') : [])),
            $glitches,
        );
    }

    /**
     * @param list<float> $volts
     *
     * @return list<float> over their median; empty where they are no voltage of a pack
     */
    private static function over(array $volts): array
    {
        $median = [] === $volts ? 0.0 : Statistics::median($volts);
        if ($median < self::LEAST_PACK_V) {
            return [];
        }

        return array_map(static fn (float $v): float => max(self::LEAST_SUPPLY, min(self::MOST_SUPPLY, $v / $median)), $volts);
    }
}
