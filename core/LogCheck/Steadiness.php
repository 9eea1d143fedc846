<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;

/**
 * Whether D stayed the same throughout a flight: its trace against the slope of the rate it was made of, in windows of
 * half a second. A D that rises with the sticks or falls with throttle makes the step of no one tune.
 */
final readonly class Steadiness
{
    private const RATE_HZ = 100.0;
    private const WINDOW = 50;
    private const LEAST_R2 = 0.9;
    private const LEAST_WINDOWS = 12;

    /** Share of the slope's power that a window needs against the busiest tenth, to have a say. */
    private const LEAST_SHARE = 0.1;

    /**
     * @return float|null spread of D's gain over the flight, (90th − 10th percentile) / median; null when the log does not tell
     */
    public static function ofD(FlightLog $log, Axis $axis): ?float
    {
        $rateName = $log->rateAsFlown($axis);
        if (!$log->has(Traces::term('d', $axis)) || null === $rateName) {
            return null;
        }
        $factor = max(1, (int) round($log->clock->rateHz / self::RATE_HZ));
        $windows = [];
        $rates = $log->runs($rateName);
        foreach ($log->runs(Traces::term('d', $axis)) as $r => $run) {
            $d = Statistics::decimated($run, $factor);
            $w = Statistics::decimated($rates[$r], $factor);
            for ($at = 1, $last = \count($d) - self::WINDOW - 1; $at < $last; $at += self::WINDOW) {
                $xx = $xy = $yy = 0.0;
                for ($i = $at; $i < $at + self::WINDOW; ++$i) {
                    // The D path comes later than the slope by its filter: the mean over three steps leaves little of that.
                    $x = $w[$i] - $w[$i - 1] + 0.5 * ($w[$i + 1] - $w[$i - 1]);
                    $y = $d[$i];
                    $xx += $x * $x;
                    $xy += $x * $y;
                    $yy += $y * $y;
                }
                $windows[] = [$xx, $xy, $yy];
            }
        }
        if (\count($windows) < self::LEAST_WINDOWS) {
            return null;
        }
        $busy = Statistics::quantile(array_column($windows, 0), 0.9);
        $gains = [];
        foreach ($windows as [$xx, $xy, $yy]) {
            if ($xx > self::LEAST_SHARE * $busy && $yy > 0 && $xy * $xy > self::LEAST_R2 * $xx * $yy) {
                $gains[] = abs($xy / $xx);
            }
        }
        if (\count($gains) < self::LEAST_WINDOWS) {
            return null;
        }
        $middle = Statistics::median($gains);

        return $middle > 0 ? (Statistics::quantile($gains, 0.9) - Statistics::quantile($gains, 0.1)) / $middle : null;
    }
}
