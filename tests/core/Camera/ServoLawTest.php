<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Camera;

use Ortholex\Core\Camera\CruiseTilt;
use Ortholex\Core\Camera\ServoLaw;
use Ortholex\Core\Craft\SettingSet;
use PHPUnit\Framework\TestCase;

final class ServoLawTest extends TestCase
{
    public function testPulsesAndDegrees(): void
    {
        $law = ServoLaw::in(
            SettingSet::of(
                ['camera.low_us' => 1200.0, 'camera.high_us' => 1900.0, 'camera.middle_us' => 1500.0, 'camera.us_per_deg' => 10.0],
            ),
        );
        self::assertSame([1500.0, 1700.0, 1900.0, 1200.0], array_map($law->us(...), [0.0, 20.0, 80.0, -80.0]));
        self::assertSame([-30.0, 40.0], $law->reach());
        $back = ServoLaw::in(SettingSet::of(['camera.reversed' => true, 'camera.us_per_deg' => 8.0]));
        self::assertSame(1340.0, $back->us(20.0));
        self::assertSame(20.0, $back->deg(1340.0));
        self::assertSame([-50.0, 50.0], $back->reach());
    }

    public function testWhatItFollows(): void
    {
        $both = ServoLaw::in(SettingSet::of(['camera.follows_pitch' => true, 'camera.knob_channel' => 9, 'camera.rest_deg' => 5.0]));
        self::assertSame(15.0, $both->asked(-10.0, 1500.0, false));
        self::assertSame(37.5, $both->asked(-10.0, 1750.0, false));
        $none = ServoLaw::in(SettingSet::of([]));
        self::assertSame(0.0, $none->asked(-10.0, 2000.0, false));
        self::assertSame(10.0, $none->asked(-10.0, 2000.0, true), 'camera level is on');
    }

    public function testTheSlopeOfTwoPlacesShown(): void
    {
        self::assertSame([10.0, false], ServoLaw::slope([1300.0, -20.0], [1700.0, 20.0]));
        self::assertSame([8.0, true], ServoLaw::slope([1300.0, 25.0], [1700.0, -25.0]));
        self::assertNull(ServoLaw::slope([1500.0, 0.0], [1520.0, 2.0]));
    }

    public function testHowItLeansAtItsCruise(): void
    {
        $speed = [...array_fill(0, 200, 0.4), ...array_fill(0, 300, 8.0)];
        $pitch = [...array_fill(0, 200, 0.0), ...array_map(static fn (int $i): float => -12.0 + ($i % 3 - 1), range(0, 299))];
        $tilt = CruiseTilt::of($speed, $pitch);
        self::assertEqualsWithDelta(12.0, $tilt?->cameraDeg(), 1e-9);
        self::assertEqualsWithDelta(8.0, $tilt?->speedMs, 1e-9);
        self::assertNull(CruiseTilt::of(array_fill(0, 500, 1.0), array_fill(0, 500, -3.0)));
    }
}
