<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Switches;

use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\FoundSwitch;
use Ortholex\Core\Switches\MapCheck;
use Ortholex\Core\Switches\MapRemark;
use Ortholex\Core\Switches\Need;
use Ortholex\Core\Switches\SwitchCode;
use Ortholex\Core\Switches\SwitchMap;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What actions cannot work without, what boards tell as bits, and maps with more states than can be looked at together. */
final class NeedsTest extends TestCase
{
    /** @return iterable<string, array{Action, array<string, string|bool>, list<string>, Need|null}> */
    public static function needs(): iterable
    {
        $all = ['gyro', 'accelerometer', 'barometer', 'compass'];
        yield 'hold without a position' => [Action::PositionHold, [], $all, Need::Position];
        yield 'hold without a compass' => [Action::PositionHold, ['location.enabled' => true], ['gyro', 'accelerometer'], Need::Compass];
        yield 'hold with both' => [Action::PositionHold, ['location.enabled' => true], $all, null];
        yield 'return without a position' => [Action::Return, [], $all, Need::Position];
        yield 'height without a barometer' => [Action::AltitudeHold, [], ['gyro'], Need::Barometer];
        yield 'height with one' => [Action::AltitudeHold, [], $all, null];
        yield 'angle without an accelerometer' => [Action::Angle, [], ['gyro'], Need::Accelerometer];
        yield 'horizon with one' => [Action::Horizon, [], $all, null];
        yield 'beeper by pulses' => [Action::Beeper, ['motors.protocol' => 'oneshot125'], $all, Need::DigitalSignal];
        yield 'beeper by numbers' => [Action::Beeper, ['motors.protocol' => 'dshot600'], $all, null];
        yield 'righting by pulses' => [Action::SelfRight, ['motors.protocol' => 'pwm'], $all, Need::DigitalSignal];
        yield 'camera without a servo' => [Action::CameraLevel, [], $all, Need::CameraServo];
        yield 'camera with one' => [Action::CameraLevel, ['pad.7.drives' => 'camera_tilt'], $all, null];
        yield 'recorder that writes nowhere' => [Action::Record, ['recorder.writes_to' => 'nothing'], $all, Need::Recorder];
        yield 'recorder' => [Action::Record, ['recorder.writes_to' => 'wire'], $all, null];
        yield 'no video control' => [Action::VideoLow, [], $all, Need::Video];
        yield 'arm' => [Action::Arm, [], [], null];
    }

    /**
     * @param array<string, string|bool> $settings
     * @param list<string>               $sensors
     */
    #[DataProvider('needs')]
    public function testWhatIsMissingIsNamed(Action $action, array $settings, array $sensors, ?Need $need): void
    {
        self::assertSame($need, $action->missing(SettingSet::of($settings), $sensors));
    }

    public function testBitsComeBack(): void
    {
        $all = 0;
        foreach (Action::cases() as $action) {
            self::assertSame([$action], Action::ofBits($action->bit()));
            self::assertSame(0, $all & $action->bit());
            $all |= $action->bit();
        }
        self::assertSame(Action::cases(), Action::ofBits($all));
        self::assertSame(Bar::cases(), Bar::in(8191));
        self::assertSame([Bar::Failsafe, Bar::Tilted], Bar::in(18));
    }

    public function testAMapOfTooManyStatesIsLookedAtLeverByLever(): void
    {
        $switches = $settings = [];
        $actions = [Action::Arm, Action::Beeper, Action::Angle, Action::Horizon, Action::Record, Action::TestFeel, Action::GainSetB];
        foreach ($actions as $i => $action) {
            $switches[] = FoundSwitch::knob(5 + $i, 4);
            $settings[$action->setting()] = (5 + $i).':1750-';
        }
        // Angle and horizon on two levers: they meet when both are up.
        $map = SwitchMap::of(SettingSet::of($settings), $switches);
        self::assertGreaterThan(SwitchMap::MOST_STATES, $map->states());
        $seen = 0;
        foreach ($map->all() as $positions) {
            self::assertCount(7, $positions);
            ++$seen;
        }
        self::assertSame(21 * 16, $seen, 'any two levers through all their positions');
        $set = SettingSet::of($settings);
        $codes = array_map(static fn (MapRemark $r): mixed => $r->what->code, MapCheck::of($map, $set, ['accelerometer'], true));
        self::assertContains(SwitchCode::Contradict, $codes);
        self::assertContains(SwitchCode::ArmInOneFlick, $codes);
        self::assertNotContains(SwitchCode::NeverReached, $codes);
    }

    public function testAllStatesAreTheProductOfTheLeversThatAreLookedAt(): void
    {
        $switches = [FoundSwitch::at(5, [1000, 1500, 2000]), FoundSwitch::at(6, [1000, 2000]), FoundSwitch::at(9, [1000, 2000])];
        $map = SwitchMap::of(SettingSet::of(['action.arm.on_in' => '5:1750- with 6:1500-']), $switches);
        $states = [];
        foreach ($map->all() as $positions) {
            $states[] = json_encode($positions);
        }
        self::assertCount(6, array_unique($states), 'the lever on 9 turns nothing on');
        self::assertSame(6, $map->states());
    }

    public function testAKnobIsCutEvenly(): void
    {
        foreach (range(2, 8) as $cuts) {
            $knob = FoundSwitch::knob(11, $cuts);
            self::assertTrue($knob->knob);
            self::assertCount($cuts, $knob->positions);
            foreach ($knob->edges() as $i => $edge) {
                self::assertEqualsWithDelta(1000 + ($i + 1) * (1000 / $cuts), $edge, 1.0);
            }
            self::assertSame(0, $knob->position(900.0));
            self::assertSame($cuts - 1, $knob->position(2100.0));
        }
    }
}
