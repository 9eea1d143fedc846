<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\LinkLoss;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\RangeWalk;
use Ortholex\Core\LinkLoss\SinkSpeed;
use Ortholex\Core\LinkLoss\Stage;
use PHPUnit\Framework\TestCase;

/** Sinking with a fixed output against closed forms, and the plan by its seconds. */
final class SinkSpeedTest extends TestCase
{
    public function testItSinksWhereDragMakesUpForWhatLiftLacks(): void
    {
        $law = SinkSpeed::of(36.0, 23.4);
        self::assertEqualsWithDelta(0.0, $law->steady(36.0, 23.4), 1e-9);
        self::assertEqualsWithDelta(20.0, $law->steady(0.0, 23.4), 1e-9);
        // Lift (33·23/(36·23.4))² = 0.81180: 20·sqrt(0.18820).
        self::assertEqualsWithDelta(8.6765, $law->steady(33.0, 23.0), 1e-3);
        // With a full pack the same output climbs: (33·26/(36·23.4))² = 1.03738.
        self::assertEqualsWithDelta(-3.8668, $law->steady(33.0, 26.0), 1e-3);
        foreach ([0.5, 1.5, 2.5, 8.0, -2.0] as $sink) {
            self::assertEqualsWithDelta($sink, $law->steady($law->output($sink, 22.0), 22.0), 1e-9);
        }
    }

    /** With motors off: v = v_t·sqrt(1 − exp(−2gh/v_t²)), t = v_t/g·arcosh(exp(gh/v_t²)). */
    public function testAFallIsAFall(): void
    {
        $law = SinkSpeed::of(36.0, 23.4);
        foreach ([2.0, 10.0, 40.0] as $height) {
            $fall = $law->fall($height, 0.0, 23.4);
            self::assertNotNull($fall);
            self::assertEqualsWithDelta(20 * sqrt(1 - exp((-2 * 9.81 * $height) / 400)), $fall[1], 0.02);
            self::assertEqualsWithDelta((20 / 9.81) * acosh(exp((9.81 * $height) / 400)), $fall[0], 0.005);
        }
        self::assertNull($law->fall(10.0, 36.5, 23.4), 'what climbs never comes down');
    }

    public function testOneThrottleForAllVoltagesIsAdvisedOnlyWhereThereIsOne(): void
    {
        $law = SinkSpeed::of(36.0, 23.4);
        self::assertNull($law->advised(25.2, 20.4), 'a full pack climbs where an empty one falls');
        $narrow = $law->advised(22.1, 22.0);
        self::assertNotNull($narrow);
        foreach ($narrow as $output) {
            foreach ([22.1, 22.0] as $volts) {
                $sink = $law->steady($output, $volts);
                self::assertGreaterThan(SinkSpeed::SOFT[0] - 1e-6, $sink);
                self::assertLessThan(SinkSpeed::SOFT[1] + 1e-6, $sink);
            }
        }
    }

    public function testThePlanGoesByItsSeconds(): void
    {
        $plan = LossPlan::in(SettingSet::of([
            'link_loss.hold_s' => 0.8,
            'link_loss.then' => 'descend',
            'link_loss.descend_s' => 12.0,
            'link_loss.throttle_below_us' => 940.0,
        ]));
        foreach (
            [
                [0.0, Stage::Heard],
                [0.14, Stage::Heard],
                [0.2, Stage::Hold],
                [0.79, Stage::Hold],
                [0.81, Stage::Descend],
                [12.79, Stage::Descend],
                [12.81, Stage::Cut],
            ] as [$s, $stage]
        ) {
            self::assertSame($stage, $plan->stage($s), "after $s s");
        }
        self::assertTrue($plan->counts(940.0));
        self::assertFalse($plan->counts(939.0));
        $cut = LossPlan::in(SettingSet::of(['link_loss.then' => 'cut']));
        self::assertSame(Stage::Cut, $cut->stage(0.51));
        self::assertSame(Stage::Return, LossPlan::in(SettingSet::of(['link_loss.then' => 'return']))->stage(0.6));
    }

    /** Free space: half the distance is 6 dB, a hundredth of the power 20 dB. */
    public function testARangeWalkAtAHundredthOfThePower(): void
    {
        $walked = [[30.0, 98.0, 1.0], [10.0, 100.0, 1.0], [60.0, 91.0, 1.0], [120.0, 40.0, 1.0], [90.0, 75.0, 1.0]];
        $walk = RangeWalk::of($walked, 100.0, 300.0);
        self::assertSame(90.0, $walk->heldM);
        self::assertEqualsWithDelta(20 * log10(90 / 300) + 20, $walk->marginDb, 1e-9);
        $twice = RangeWalk::of($walked, 100.0, 600.0)->marginDb ?? 0.0;
        self::assertEqualsWithDelta(20 * log10(2), ($walk->marginDb ?? 0.0) - $twice, 1e-9);
        self::assertNull(RangeWalk::of([[10.0, 60.0, 1.0]], 100.0, 300.0)->heldM, 'it never held');
        self::assertNull(RangeWalk::of([], 100.0, 300.0)->marginDb);
    }
}
