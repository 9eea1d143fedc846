<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\DerivedTrace;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

final class DerivedTraceTest extends TestCase
{
    public function testOnlyWhatTheLogCanTellIsOffered(): void
    {
        self::assertSame([], DerivedTrace::allOf(['setpoint_roll_dps', 'rate_measured_roll_dps', 'term_p_roll', 'throttle_pct']));
        $two = DerivedTrace::allOf(['setpoint_yaw_dps', 'rate_filtered_yaw_dps', 'term_p_yaw', 'term_ff_yaw']);
        self::assertSame(['error_yaw_dps', 'sum_yaw'], array_keys($two));
        self::assertSame(['setpoint_yaw_dps' => 1.0, 'rate_filtered_yaw_dps' => -1.0], $two['error_yaw_dps']->weights);
        self::assertSame(['deg/s', 'error, yaw'], [$two['error_yaw_dps']->unit, $two['error_yaw_dps']->words]);
        self::assertSame(['term_p_yaw' => 1.0, 'term_ff_yaw' => 1.0], $two['sum_yaw']->weights);
    }

    public function testItIsTheSumSampleBySample(): void
    {
        $random = new Lcg(7);
        $all = DerivedTrace::allOf(['setpoint_roll_dps', 'rate_filtered_roll_dps', 'term_p_roll', 'term_i_roll', 'term_d_roll']);
        $samples = [];
        foreach (['setpoint_roll_dps', 'rate_filtered_roll_dps', 'term_p_roll', 'term_i_roll', 'term_d_roll'] as $name) {
            for ($i = 0; $i < 500; ++$i) {
                $samples[$name][] = 100 * $random->normal();
            }
        }
        $error = $all['error_roll_dps']->of($samples);
        $sum = $all['sum_roll']->of($samples);
        for ($i = 0; $i < 500; ++$i) {
            self::assertEqualsWithDelta($samples['setpoint_roll_dps'][$i] - $samples['rate_filtered_roll_dps'][$i], $error[$i], 1e-9);
            self::assertEqualsWithDelta(
                $samples['term_p_roll'][$i] + $samples['term_i_roll'][$i] + $samples['term_d_roll'][$i],
                $sum[$i],
                1e-9,
            );
        }
        self::assertSame([], $all['sum_roll']->of(['term_p_roll' => [], 'term_i_roll' => [], 'term_d_roll' => []]));
    }
}
