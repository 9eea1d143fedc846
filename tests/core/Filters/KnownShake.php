<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Filters;

use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Tests\core\Lcg;

/** A log whose rate shakes in a known way: white noise, and lines at multiples of rotor speeds that change. */
final class KnownShake
{
    /**
     * @param list<float> $rotorHz speed of each motor at the middle of the flight; it changes by a fifth to either side
     * @param string      $head    YAML ahead of the log
     */
    public static function log(float $rateHz, float $seconds, array $rotorHz, float $white, float $line, string $head = ''): FlightLog
    {
        $lcg = new Lcg(4711);
        $n = (int) ($rateHz * $seconds);
        $times = $rate = [];
        $rpm = array_fill(0, \count($rotorHz), []);
        $phase = array_fill(0, \count($rotorHz), 0.0);
        for ($i = 0; $i < $n; ++$i) {
            $t = $i / $rateHz;
            $times[] = $t;
            $v = $white * $lcg->normal() + 40 * sin(2 * \M_PI * 3 * $t);
            foreach ($rotorHz as $m => $hz) {
                $now = $hz * (1 + 0.2 * sin((2 * \M_PI * $t) / 7 + $m));
                $phase[$m] += (2 * \M_PI * $now) / $rateHz;
                $rpm[$m][] = 60 * $now;
                $v += $line * (sin($phase[$m]) + 0.5 * sin(2 * $phase[$m] + 1));
            }
            $rate[] = $v;
        }
        $columns = ['rate_measured_roll_dps' => $rate];
        foreach ($rpm as $m => $values) {
            $columns["rpm_place{$m}"] = $values;
            $columns["output_place{$m}_pct"] = array_fill(0, $n, 40.0);
        }

        return new FlightLog(SampleClock::of(self::column($times)), array_map(self::column(...), $columns), $head, new BadRows(0, []));
    }

    /** @param list<float> $values */
    private static function column(array $values): Column
    {
        return Column::ofBytes(FlightLog::packFloats($values));
    }
}
