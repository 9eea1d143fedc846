<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Control;

use Ortholex\Bench\Flight\Controller\FlightControl;
use Ortholex\Bench\Flight\Controller\RateLoop;
use Ortholex\Core\Control\GainScale;
use Ortholex\Core\Craft\SettingSet;
use PHPUnit\Framework\TestCase;

final class GainScaleTest extends TestCase
{
    public function testFallsInAStraightLineFromHalfThrottleAndRisesAsTheCellSinks(): void
    {
        $scale = GainScale::of(SettingSet::of(['gain.throttle_fall_pct' => 40.0, 'gain.sag_rise_pct' => 100.0]));
        self::assertSame([1.0, 1.0, 0.8, 0.6], array_map($scale->overThrottle(...), [0.0, 50.0, 75.0, 100.0]));
        self::assertEqualsWithDelta(GainScale::NOMINAL_CELL_V / 3.3, $scale->overSag(3.3), 1e-12);
        self::assertSame(1.0, $scale->overSag(GainScale::NOMINAL_CELL_V));
        self::assertFalse($scale->isFlat());
        self::assertTrue(GainScale::of(SettingSet::none())->isFlat());
    }

    /** What is drawn is what the simulated board flies: P of a standing error, at many throttles and voltages. */
    public function testIsWhatTheBoardFlies(): void
    {
        $set = SettingSet::of(['gain.roll.p' => 30.0, 'gain.roll.i' => 0.0, 'gain.throttle_fall_pct' => 35.0, 'gain.sag_rise_pct' => 60.0]);
        $scale = GainScale::of($set);
        foreach ([20.0, 55.0, 80.0, 100.0] as $throttle) {
            foreach ([4.2, 3.8, 3.4] as $volts) {
                $loop = new RateLoop(FlightControl::of($set, 1000.0), 1000.0);
                for ($i = 0; $i < 800; ++$i) {
                    $loop->command([100.0, 0.0, 0.0], [0.0, 0.0, 0.0], $throttle, 6 * $volts, 6 * GainScale::NOMINAL_CELL_V);
                }
                self::assertEqualsWithDelta(30.0 * $scale->overThrottle($throttle) * $scale->overSag($volts), $loop->p[0], 0.02);
            }
        }
    }
}
