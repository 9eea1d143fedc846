<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Homing;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\AirLaw;
use Ortholex\Core\Homing\Gift;
use Ortholex\Core\Homing\GiftNeed;
use Ortholex\Core\Homing\HomeCondition;
use Ortholex\Core\Homing\HomeStage;
use Ortholex\Core\Homing\ReturnForecast;
use Ortholex\Core\Homing\ReturnPlan;
use PHPUnit\Framework\TestCase;

/** Coming home by its stages, and what it takes, against closed forms. */
final class ReturnTest extends TestCase
{
    public function testSpeedAndCurrentByLean(): void
    {
        $air = AirLaw::of(17.0, 14.0);
        self::assertEqualsWithDelta(17.0, $air->airspeed(45.0), 1e-9);
        self::assertEqualsWithDelta(17 * sqrt(tan(deg2rad(25))), $air->airspeed(25.0), 1e-9);
        foreach ([2.0, 8.0, 15.0] as $v) {
            self::assertEqualsWithDelta($v, $air->airspeed($air->tilt($v)), 1e-9);
        }
        self::assertEqualsWithDelta(14.0, $air->current(0.0), 1e-9);
        self::assertEqualsWithDelta(14 * 2 ** 0.75, $air->current(17.0), 1e-9);
    }

    public function testGroundSpeedAgainstWind(): void
    {
        $plan = ReturnPlan::in(SettingSet::of(['return.speed_ms' => 20.0, 'hold.most_tilt_deg' => 25.0]));
        $air = AirLaw::of(17.0, 14.0);
        $most = $air->airspeed(25.0);
        $of = static fn (float $wind, float $from): ?float => ReturnForecast::of($plan, $air, 300.0, 30.0, $wind, $from)->groundMs;
        self::assertEqualsWithDelta($most, $of(0.0, 0.0), 1e-9);
        self::assertEqualsWithDelta($most - 5, $of(5.0, 0.0), 1e-9);
        self::assertEqualsWithDelta($most + 5, $of(5.0, 180.0), 1e-9);
        self::assertEqualsWithDelta(sqrt($most ** 2 - 25), $of(5.0, 90.0), 1e-6);
        self::assertNull($of(12.0, 0.0), 'no headway');
        self::assertFalse(ReturnForecast::of($plan, $air, 300.0, 30.0, $most + 1, 180.0)->comesHome(), 'it would never stand over home');
    }

    public function testTheDistanceFromWhichAChargeJustBringsItHome(): void
    {
        $plan = ReturnPlan::in(SettingSet::of([]));
        $air = AirLaw::of(17.0, 14.0);
        foreach ([0.0, 90.0, 180.0] as $from) {
            $far = ReturnForecast::noReturnM($plan, $air, 1.5, 20.0, 4.0, $from);
            self::assertNotNull($far);
            self::assertEqualsWithDelta(1.5, ReturnForecast::of($plan, $air, $far, 20.0, 4.0, $from)->ah, 1e-9);
        }
        self::assertNull(ReturnForecast::noReturnM($plan, $air, 0.05, 20.0, 4.0, 0.0), 'the climb alone takes more');
        self::assertGreaterThan(
            ReturnForecast::noReturnM($plan, $air, 1.5, 20.0, 4.0, 0.0),
            ReturnForecast::noReturnM($plan, $air, 1.5, 20.0, 4.0, 180.0),
            'the wind from behind carries it',
        );
    }

    public function testItsStages(): void
    {
        $plan = ReturnPlan::in(SettingSet::of(['return.height_m' => 30.0, 'return.least_m' => 15.0]));
        $next = static fn (
            ?HomeStage $was,
            ?float $far,
            float $high,
            float $off = 0.0,
        ): HomeStage => $plan->next($was, $far, $high, 30.0, $off);
        self::assertSame(HomeStage::Climb, $next(null, 100.0, 10.0));
        self::assertSame(HomeStage::ComeDown, $next(null, 10.0, 10.0));
        self::assertSame(HomeStage::Blind, $next(null, null, 10.0));
        self::assertSame(HomeStage::Climb, $next(HomeStage::Climb, 100.0, 28.0));
        self::assertSame(HomeStage::Turn, $next(HomeStage::Climb, 100.0, 29.5));
        self::assertSame(HomeStage::Turn, $next(HomeStage::Turn, 100.0, 30.0, 90.0));
        self::assertSame(HomeStage::FlyBack, $next(HomeStage::Turn, 100.0, 30.0, -10.0));
        self::assertSame(HomeStage::ComeDown, $next(HomeStage::FlyBack, 1.5, 30.0));
        self::assertSame(HomeStage::Blind, $next(HomeStage::FlyBack, null, 30.0));
        self::assertSame(HomeStage::Climb, $next(HomeStage::Blind, 80.0, 20.0), 'the fix is back');
        $near = static fn (string $if): HomeStage => ReturnPlan::in(
            SettingSet::of(['return.if_near' => $if]),
        )->next(null, 5.0, 10.0, 30.0, 0.0);
        self::assertSame([HomeStage::ComeDown, HomeStage::Climb, HomeStage::Stay], array_map($near, ['land_here', 'come_back', 'stay']));
        self::assertSame(45.0, $plan->backAtM(45.0), 'it never comes lower to fly back');
        self::assertFalse($plan->isTooFar(9000.0));
        self::assertTrue(ReturnPlan::in(SettingSet::of(['return.most_m' => 200.0]))->isTooFar(201.0));
    }

    public function testHomeAndWhatACraftStillNeeds(): void
    {
        $set = SettingSet::of(['location.least_satellites' => 8, 'location.most_hdop' => 2.0]);
        self::assertSame([], HomeCondition::unmet($set, 3, 8, 2.0));
        self::assertSame([HomeCondition::Satellites, HomeCondition::Dop], HomeCondition::unmet($set, 3, 7, 2.1));
        self::assertSame(HomeCondition::cases(), HomeCondition::unmet($set, 1, 0, null));
        self::assertSame([GiftNeed::Position], Gift::Figures->needs($set, [], false, false));
        $all = SettingSet::of([
            'location.enabled' => true,
            'compass.enabled' => true,
            'link_loss.then' => 'return',
            'action.return.on_in' => '7:1500-',
            'action.position_hold.on_in' => '7:1200-1500',
        ]);
        $sensors = ['compass', 'barometer'];
        foreach (Gift::cases() as $gift) {
            self::assertSame([], $gift->needs($all, $sensors, true, true));
        }
        self::assertSame([GiftNeed::Calibration, GiftNeed::Rehearsal], Gift::Return->needs($all, $sensors, false, false));
        self::assertSame([GiftNeed::Compass, GiftNeed::Barometer], Gift::Hold->needs($all, ['gyro'], true, true));
    }
}
