<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\Traces;
use PHPUnit\Framework\TestCase;

final class TracesTest extends TestCase
{
    public function testEachAxisIsReadByWhatWasLoggedOfItself(): void
    {
        $logged = ['rate_measured_roll_dps', 'rate_filtered_roll_dps', 'rate_measured_pitch_dps', 'setpoint_yaw_dps'];
        self::assertSame(
            ['roll' => 'rate_filtered_roll_dps', 'pitch' => 'rate_measured_pitch_dps'],
            Traces::ratesOfControl($logged),
        );
        self::assertSame('rate_measured_roll_dps', Traces::rateOfRotation($logged, Axis::Roll));
        self::assertNull(Traces::rateOfRotation($logged, Axis::Yaw));
        self::assertSame([], Traces::ratesOfControl([]));
    }
}
