<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Signal\Statistics;

/**
 * The throttle at which a craft hovers, from any flight: thrust grows with the square of the output, so the root of what the vertical
 * accelerometer reads is a straight line over throttle; hover is where that line reads one gravity.
 */
final readonly class Hover
{
    private const WINDOW_S = 0.5;

    /** A window in which the craft was asked to turn faster than this tells of drag and centrifugal force, deg/s. */
    private const MOST_DPS = 250.0;

    /** Within a window throttle must not have changed by more, %. */
    private const MOST_CHANGE_PCT = 12.0;

    private const LEAST_PCT = 4.0;
    private const LEAST_WINDOWS = 8;
    private const LEAST_RANGE_PCT = 4.0;

    /** @param float $spreadPct how far single windows lie from the line, in throttle: one deviation */
    private function __construct(public float $throttlePct, public float $spreadPct, public int $windows)
    {
    }

    /** Null where the log has no throttle and accelerometer, or too little of the range about hover. */
    public static function of(FlightLog $log): ?self
    {
        if (!$log->has('throttle_pct') || !$log->has('accel_z_g')) {
            return null;
        }
        $points = self::windows($log);
        $x = array_column($points, 0);
        $y = array_column($points, 1);
        $n = \count($points);
        if ([] === $x || $n < self::LEAST_WINDOWS || max($x) - min($x) < self::LEAST_RANGE_PCT) {
            return null;
        }
        [$mx, $my] = [Statistics::mean($x), Statistics::mean($y)];
        $sxx = $sxy = 0.0;
        foreach ($points as [$throttle, $root]) {
            $sxx += ($throttle - $mx) ** 2;
            $sxy += ($throttle - $mx) * ($root - $my);
        }
        $slope = $sxy / $sxx;
        $hover = $slope > 0 ? $mx + (1 - $my) / $slope : 0.0;
        // A line is not believed far beyond what was flown.
        if ($hover < min($x) - self::LEAST_RANGE_PCT || $hover > max($x) + self::LEAST_RANGE_PCT || $hover <= 0) {
            return null;
        }
        $off = 0.0;
        foreach ($points as [$throttle, $root]) {
            $off += ($root - $my - $slope * ($throttle - $mx)) ** 2;
        }

        return new self($hover, sqrt($off / $n) / $slope, $n);
    }

    /** @return list<array{float, float}> mean throttle in %, and the root of the mean vertical force in g */
    private static function windows(FlightLog $log): array
    {
        [$throttle, $up] = [$log->trace('throttle_pct'), $log->trace('accel_z_g')];
        $setpoints = [];
        foreach (['roll', 'pitch'] as $axis) {
            if ($log->has("setpoint_{$axis}_dps")) {
                $setpoints[] = $log->trace("setpoint_{$axis}_dps");
            }
        }
        $width = max(1, (int) round(self::WINDOW_S * $log->clock->rateHz));
        $points = [];
        for ($from = 0, $n = \count($throttle); $from + $width <= $n; $from += $width) {
            $quick = 0.0;
            foreach ($setpoints as $setpoint) {
                $quick = max($quick, Statistics::mean(array_map(abs(...), \array_slice($setpoint, $from, $width))));
            }
            $part = \array_slice($throttle, $from, $width);
            $steady = [] !== $part && max($part) - min($part) < self::MOST_CHANGE_PCT;
            $mean = Statistics::mean($part);
            if ($steady && $quick < self::MOST_DPS && $mean > self::LEAST_PCT) {
                $points[] = [$mean, sqrt(max(0.0, -Statistics::mean(\array_slice($up, $from, $width))))];
            }
        }

        return $points;
    }
}
