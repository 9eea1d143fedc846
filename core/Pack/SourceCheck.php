<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Signal\Statistics;

/** Whether what is logged as the pack's voltage is it: it must sag while current flows. */
final readonly class SourceCheck
{
    /** A pack that gives so much more sags by more than this, A and V of a cell. */
    private const AMPERES = 5.0;

    private const LEAST_SAG_V = 0.01;

    /** Null where there is nothing to say. */
    public static function of(FlightLog $log, int $cells): ?Fact
    {
        if (!$log->has('battery_v')) {
            return null;
        }
        $volts = $log->trace('battery_v');
        $moved = Statistics::quantile($volts, 0.98) - Statistics::quantile($volts, 0.02);
        $amperes = $log->has('current_a')
            ? Statistics::quantile($log->trace('current_a'), 0.98) - Statistics::quantile($log->trace('current_a'), 0.02)
            : self::AMPERES;
        $volt = Statistics::median($volts);
        if ($amperes >= self::AMPERES && $moved < self::LEAST_SAG_V * $cells) {
            return Fact::of(PackCode::Stuck, volts: $volt, seconds: $log->clock->durationS());
        }

        return [] === array_intersect(Cells::of($volt), [$cells]) && ($volt < 2.5 * $cells || $volt > 4.35 * $cells)
            ? Fact::of(PackCode::WrongSource, volts: $volt, cells: $cells)
            : null;
    }
}
