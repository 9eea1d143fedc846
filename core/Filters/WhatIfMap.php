<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Noise\NoiseMap;

/**
 * The noise map of a log's measured rate behind a chain of filters: what moves is run along the log, what stands multiplies the map, as
 * in WhatIf.
 */
final readonly class WhatIfMap
{
    /**
     * @param SettingSet        $chain    what it leaves out is off
     * @param list<list<float>> $throttle by run, %
     */
    public static function of(FlightLog $log, SettingSet $chain, Axis $axis, array $throttle): ?NoiseMap
    {
        $name = Traces::measuredRate($axis);
        if (!$log->has($name) || [] === $throttle) {
            return null;
        }
        $loopHz = WhatIf::loopHz($log, $chain);
        $moving = MovingNotches::of($chain, $loopHz);
        $rotors = WhatIf::rotors($log);
        $runs = $log->runs($name);
        foreach ($moving->areOff() ? [] : $runs as $r => $run) {
            $runs[$r] = $moving->run($run, array_column($rotors, $r), $log->clock->rateHz)[0];
        }
        $fixed = RateFilters::of($chain->with(['notch.motor.orders' => '']), $loopHz);

        return NoiseMap::of($runs, $throttle, $log->clock->rateHz)->through($fixed->ratePath);
    }
}
