<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Signal\Statistics;

/** The current of a pack while its craft hovers: the median where one gravity is felt and nobody asks it to turn. */
final readonly class HoverAmperes
{
    public const WANTED = ['current_a', 'accel_z_g', 'setpoint_roll_dps', 'setpoint_pitch_dps'];

    /** Felt within this of one gravity, averaged over a quarter of a second. */
    private const NEAR_G = 0.08;

    private const MOST_DPS = 60.0;
    private const LEAST_WINDOWS = 8;

    private function __construct(public float $amperes, public float $spread, public int $windows)
    {
    }

    /** Null for a log that has none of it, or no hover. */
    public static function of(FlightLog $log): ?self
    {
        if (!$log->has('current_a') || !$log->has('accel_z_g')) {
            return null;
        }
        $current = $log->trace('current_a');
        $felt = $log->trace('accel_z_g');
        $roll = $log->has('setpoint_roll_dps') ? $log->trace('setpoint_roll_dps') : [];
        $pitch = $log->has('setpoint_pitch_dps') ? $log->trace('setpoint_pitch_dps') : [];
        $long = max(1, (int) round($log->clock->rateHz / 4));
        $found = [];
        for ($from = 0; $from + $long <= \count($current); $from += $long) {
            $g = abs(array_sum(\array_slice($felt, $from, $long)) / $long);
            $asked = max(
                [
                    0.0,
                    ...array_map(abs(...), \array_slice($roll, $from, $long)),
                    ...array_map(abs(...), \array_slice($pitch, $from, $long)),
                ],
            );
            $mean = array_sum(\array_slice($current, $from, $long)) / $long;
            if (abs($g - 1) < self::NEAR_G && $asked < self::MOST_DPS && $mean > 0.5) {
                $found[] = $mean;
            }
        }

        return \count($found) < self::LEAST_WINDOWS
            ? null
            : new self(
                Statistics::median($found),
                (Statistics::quantile($found, 0.75) - Statistics::quantile($found, 0.25)) / 2,
                \count($found),
            );
    }
}
