<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Radio;

use Ortholex\Bench\Flight\Airframe\Feet;
use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Modes\Steering;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Bench\Flight\Surroundings\Motion;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Control\Feel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Core\Switches\Action;
use Ortholex\Demo\Scenario;
use PHPUnit\Framework\TestCase;

/** What levers do in flight: angle leans and comes back, horizon only around the centre, test feel is slow, air mode keeps control. */
final class SteeringTest extends TestCase
{
    public function testInAngleTheStickIsATilt(): void
    {
        $lean = $this->lean($this->fly(Action::Angle, ['angle.full_tilt_deg' => 40.0]));
        // Cruise moves the sticks by a fifth: so it leans by some 9°, and never tips over.
        self::assertLessThan(16.0, max(array_map(abs(...), $lean)));
        self::assertGreaterThan(3.0, max(array_map(abs(...), $lean)));
        $free = $this->lean($this->fly(null, []));
        self::assertGreaterThan(60.0, max(array_map(abs(...), $free)), 'with the sticks as rates it leans as far as it was turned');
    }

    public function testHorizonLevelsAroundTheCentreAndTurnsFreelyAtTheEnds(): void
    {
        $set = SettingSet::of(['horizon.level_until_pct' => 70.0, 'angle.full_tilt_deg' => 50.0, 'angle.strength_per_s' => 5.0]);
        $feel = array_fill(0, 3, Feel::of(90, 230, 600));
        $horizon = Steering::of($set, $feel, [Action::Horizon]);
        self::assertNotNull($horizon);
        self::assertEqualsWithDelta([-100.0, 0.0, 0.0], $horizon->rates([0.0, 0.0, 0.0], [20.0, 0.0, 0.0]), 1e-9);
        self::assertEqualsWithDelta([600.0, 0.0, 0.0], $horizon->rates([1.0, 0.0, 0.0], [20.0, 30.0, 0.0]), 1e-9);
        $angle = Steering::of($set, $feel, [Action::Angle, Action::Horizon]);
        $both = $angle?->rates([1.0, 0.0, 1.0], [20.0, 30.0, 0.0]);
        self::assertEqualsWithDelta([150.0, -150.0, 600.0], $both, 1e-9, 'of both, angle wins');
        self::assertNull(Steering::of($set, $feel, [Action::Arm, Action::AirMode]));
    }

    public function testTakeOffHeadingSteeringTurnsTheSticksBack(): void
    {
        $feel = array_fill(0, 3, Feel::of(100, 200, 400));
        $steering = Steering::of(SettingSet::none(), $feel, [Action::HeadingSteering]);
        self::assertNotNull($steering);
        // Turned right by a quarter, what was backwards at take-off lies at its right: it must roll the right side down.
        self::assertEqualsWithDelta([400.0, 0.0, 0.0], $steering->rates([0.0, 1.0, 0.0], [0.0, 0.0, 90.0]), 1e-6);
        self::assertEqualsWithDelta([0.0, -400.0, 0.0], $steering->rates([0.0, 1.0, 0.0], [0.0, 0.0, 180.0]), 1e-6);
        self::assertEqualsWithDelta([0.0, 400.0, 0.0], $steering->rates([0.0, 1.0, 0.0], [0.0, 0.0, 360.0]), 1e-6);
    }

    public function testThrottleIsLiftedWithTilt(): void
    {
        $feel = array_fill(0, 3, Feel::of(90, 230, 600));
        $lifts = Steering::of(SettingSet::of(['angle.throttle_lift' => true]), $feel, [Action::Angle]);
        self::assertEqualsWithDelta(40 / cos(deg2rad(30)), $lifts?->throttle(40.0, [30.0, 0.0, 0.0]), 1e-9);
        self::assertEqualsWithDelta(80.0, $lifts?->throttle(40.0, [85.0, 0.0, 0.0]), 1e-9, 'and never more than twice');
        self::assertSame(40.0, Steering::of(SettingSet::none(), $feel, [Action::Angle])?->throttle(40.0, [30.0, 0.0, 0.0]));
    }

    /** A turn about one axis is that turn; a full yaw while leaned leaves the lean to swing round. */
    public function testTheLeanFollowsTheRates(): void
    {
        $craft = self::motion();
        for ($i = 0; $i < 2000; ++$i) {
            $craft->turn([30.0, 0.0, 0.0], 0.0005);
        }
        self::assertEqualsWithDelta([30.0, 0.0, 0.0], $craft->lean(), 1e-4);
        for ($i = 0; $i < 2000; ++$i) {
            $craft->turn([0.0, 0.0, 90.0], 0.0005);
        }
        // By exact rotation: the body's yaw of a quarter carries a roll of 30° over into a pitch of −30°.
        self::assertEqualsWithDelta(-30.0, $craft->lean()[1], 0.1);
    }

    public function testTheTestFeelOnALeverIsFlown(): void
    {
        $peak = static fn (FlightLog $log): float => max(array_map(abs(...), $log->trace('setpoint_roll_dps')));
        $free = $peak($this->fly(null, [], Card::FlipSet));
        $test = $peak($this->fly(Action::TestFeel, [], Card::FlipSet));
        self::assertGreaterThan(580.0, $free);
        self::assertLessThan(345.0, $test);
    }

    /** @return list<float> roll reckoned from the rates, deg */
    private function lean(FlightLog $log): array
    {
        $dt = 1 / $log->clock->rateHz;
        $rates = array_map(static fn (string $axis): array => $log->trace("rate_filtered_{$axis}_dps"), ['roll', 'pitch', 'yaw']);
        $craft = self::motion();
        $out = [];
        foreach ($rates[0] as $i => $roll) {
            $craft->turn([$roll, $rates[1][$i], $rates[2][$i]], $dt);
            $out[] = $craft->lean()[0];
        }

        return $out;
    }

    private static function motion(): Motion
    {
        $craft = Scenario::craft()['curlew']->physics;

        return new Motion($craft, Feet::of($craft));
    }

    /** @param array<string, float|int|bool|string> $changed */
    private function fly(?Action $on, array $changed, Card $card = Card::Cruise): FlightLog
    {
        $simulator = new FlightSimulator(Scenario::craft()['curlew']->physics);
        $zones = null === $on ? [] : [$on->setting() => '8:1500-'];
        $set = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with(Scenario::craft()['curlew']->settings);
        $set = $set->with(['action.angle.on_in' => '', 'action.horizon.on_in' => ''])->with($zones + $changed);
        $radio = new RadioState();
        $radio->move(0.0, 7, 1.0);
        $path = (string) tempnam(sys_get_temp_dir(), 'fly');
        $stream = fopen($path, 'w');
        self::assertIsResource($stream);
        $flown = FlightCard::fly($card, 20, 150, $simulator->hoverThrottle(), 4)->through(Road::of($radio, Rill::C, $set));
        self::assertSame(null === $on ? [] : [$on], array_values(array_filter($flown->on, static fn (Action $a): bool => $a === $on)));
        $simulator->fly($flown, $set, 20, 9, [], new CsvRecorder($stream), static fn (float $share): bool => true);
        fclose($stream);
        $log = LogReader::readFile($path);
        unlink($path);
        self::assertGreaterThan(1.0, Statistics::deviation($log->trace('rate_filtered_roll_dps')));

        return $log;
    }
}
