<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Flight;

use Ortholex\Bench\Flight\Airframe\Body;
use Ortholex\Bench\Flight\Airframe\Feet;
use Ortholex\Bench\Flight\Controller\FilterBank;
use Ortholex\Bench\Flight\Controller\FlightControl;
use Ortholex\Bench\Flight\Controller\Mixing;
use Ortholex\Bench\Flight\Controller\RateLoop;
use Ortholex\Bench\Flight\Modes\AltitudeHold;
use Ortholex\Bench\Flight\Motors\Pack;
use Ortholex\Bench\Flight\Motors\Rotors;
use Ortholex\Bench\Flight\Pilot\Itinerary;
use Ortholex\Bench\Flight\Pilot\Levers;
use Ortholex\Bench\Flight\Pilot\SwitchOff;
use Ortholex\Bench\Flight\Surroundings\Motion;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\FilterStage;
use Ortholex\Core\Switches\Action;
use Ortholex\Demo\Scenario;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** The parts of the flight simulator, each alone. */
final class PartsTest extends TestCase
{
    private const HZ = 2000.0;

    /** A rotor follows as a first-order lag: after the three steps on the way, 1 − exp(−t/τ) of where it is sent; slower down than up. */
    public function testARotorFollowsWithItsLag(): void
    {
        $craft = Scenario::craft()['curlew']->physics;
        $h = 1 / 4000;
        $rotors = new Rotors(Body::of($craft, [], $h), 4);
        for ($i = 0; $i < 4; ++$i) {
            $rotors->turn([50.0, 50.0, 50.0, 50.0], 1.0, 0.0, 0.0, 0.0);
        }
        $t = 0.0;
        for ($i = 1; $i <= 200; ++$i) {
            $t = ($i + 1) * $h;
            $rotors->turn([50.0, 50.0, 50.0, 50.0], 1.0, 0.0, 0.0, 0.0);
        }
        self::assertEqualsWithDelta(0.5 * (1 - exp(-$t / $craft->motorLagS)), $rotors->speed[0], 0.002);
        self::assertEqualsWithDelta(4 * $rotors->speed[0] ** 2, $rotors->lift, 1e-12);
        $rotors->spin(0.5);
        for ($i = 0; $i < 203; ++$i) {
            $rotors->turn([0.0, 0.0, 0.0, 0.0], 1.0, 0.0, 0.0, 0.0);
        }
        self::assertEqualsWithDelta(0.5 * exp(-200 * $h / (1.25 * $craft->motorLagS)), $rotors->speed[0], 0.003);
        $rotors->spin(-0.4);
        $rotors->turn([-40.0, -40.0, -40.0, -40.0], 1.0, 0.0, 0.0, 0.0);
        self::assertEqualsWithDelta(-4 * 0.55 * 0.4 ** 2, $rotors->lift, 1e-9, 'backward it pushes down, and weakly');
    }

    /** Two on the right push it to the left, and no yaw comes of it where one turns each way. */
    public function testThrustTurnsTheCraftAsItsArmsSay(): void
    {
        $craft = Scenario::craft()['curlew']->physics;
        $rotors = new Rotors(Body::of($craft, [], 1 / 4000), 4);
        $right = array_map(static fn (object $m): float => $m->y > 0 ? 60.0 : 20.0, $craft->frame->motors);
        for ($i = 0; $i < 4000; ++$i) {
            [$roll, $pitch, $yaw] = $rotors->turn($right, 1.0, 0.0, 0.0, 0.0);
        }
        $arm = abs($craft->frame->motors[0]->y);
        $expected = rad2deg((-2 * $arm * $craft->thrustN * (0.6 ** 2 - 0.2 ** 2)) / $craft->inertia[0]);
        self::assertEqualsWithDelta($expected, $roll, abs($expected) * 1e-3);
        self::assertEqualsWithDelta(0.0, $pitch, 1e-6);
        self::assertEqualsWithDelta(0.0, $yaw, 1e-6);
    }

    /** Outputs stay between idle and full whatever is asked; with air mode their differences are kept as far as there is room. */
    public function testMixingKeepsWithinAndKeepsDifferences(): void
    {
        $control = FlightControl::of(self::settings(), self::HZ);
        $mixing = new Mixing($control);
        $dice = new Lcg(8);
        for ($n = 0; $n < 2000; ++$n) {
            $command = [80 * $dice->next(), 80 * $dice->next(), 60 * $dice->next()];
            $throttle = 100 * ($dice->next() + 0.5);
            $air = $mixing->outputs($command, $throttle, 5.0, true);
            $plain = $mixing->outputs($command, $throttle, 5.0, false);
            foreach ([...$air, ...$plain] as $output) {
                self::assertGreaterThanOrEqual(5.0, $output);
                self::assertLessThanOrEqual(100.0, $output);
            }
            $wanted = array_map(
                static fn (array $m): float => $m[0] * $command[0] + $m[1] * $command[1] + $m[2] * $command[2],
                $control->mixer,
            );
            $room = min(1.0, 95.0 / max(1e-9, max($wanted) - min($wanted)));
            foreach ($wanted as $i => $want) {
                self::assertEqualsWithDelta($room * ($want - $wanted[0]), $air[$i] - $air[0], 1e-9, 'air mode gives up throttle first');
            }
            self::assertLessThanOrEqual(
                array_sum($air) + 1e-9,
                min(array_sum($plain), array_sum($air)),
                'without it throttle is never raised',
            );
        }
        self::assertSame([5.0, 5.0, 5.0, 5.0], $mixing->outputs([0.0, 0.0, 0.0], 0.0, 5.0, true));
        self::assertSame([100.0, 100.0, 100.0, 100.0], $mixing->outputs([0.0, 0.0, 0.0], 100.0, 5.0, false));
        // A lower top is the end of all of it: full throttle sends it, and differences keep within the room that is left.
        $limited = new Mixing(FlightControl::of(self::settings(['motors.top_pct' => 90.0]), self::HZ));
        self::assertSame([90.0, 90.0, 90.0, 90.0], $limited->outputs([0.0, 0.0, 0.0], 100.0, 5.0, false));
        for ($n = 0; $n < 500; ++$n) {
            $command = [80 * $dice->next(), 80 * $dice->next(), 60 * $dice->next()];
            $outputs = $limited->outputs($command, 100 * ($dice->next() + 0.5), 5.0, true);
            self::assertGreaterThanOrEqual(5.0, min($outputs));
            self::assertLessThanOrEqual(90.0 + 1e-9, max($outputs));
        }
    }

    /** A steady error: P at once, I by its time, D nothing once it rests. */
    public function testTheLoopAnswersASteadyError(): void
    {
        $control = FlightControl::of(
            self::settings(['gain.roll.p' => 40.0, 'gain.roll.i' => 60.0, 'gain.roll.d' => 2.0, 'gain.roll.ff' => 0.0]),
            self::HZ,
        );
        $loop = new RateLoop($control, self::HZ);
        $out = [0.0, 0.0, 0.0];
        for ($i = 0; $i < 600; ++$i) {
            $out = $loop->command([0.0, 0.0, 0.0], [-10.0, 0.0, 0.0], 40.0, 24.0, 23.4);
        }
        self::assertEqualsWithDelta(0.4 * 10, $loop->p[0], 1e-6);
        self::assertEqualsWithDelta(0.6 * 10 * 0.3, $loop->i[0], 1e-6, '0.3 s of 10 deg/s');
        self::assertEqualsWithDelta(0.0, $loop->d[0], 1e-3);
        self::assertEqualsWithDelta($loop->p[0] + $loop->i[0] + $loop->d[0], $out[0], 1e-9);
        self::assertSame(0.0, $out[1]);
        $loop->rest();
        self::assertSame([0.0, 0.0, 0.0], $loop->i);
        for ($i = 0; $i < 60_000; ++$i) {
            $loop->command([0.0, 0.0, 0.0], [-300.0, 0.0, 0.0], 1.0, 24.0, 23.4);
        }
        self::assertEqualsWithDelta(0.0, $loop->i[0], 1e-12, 'at no throttle I waits');
    }

    /** The bank is the chain of its stages: a sine comes through with the product of their responses. */
    public function testTheFiltersAreTheirResponse(): void
    {
        $set = self::settings(['notch.motor.orders' => '1', 'notch.tracking.peaks' => 0, 'rate_path.stage.1.cutoff_hz' => 150.0]);
        $control = FlightControl::of($set, self::HZ);
        $bank = new FilterBank($control, self::HZ, 4, 29500.0);
        $speed = array_fill(0, 4, (140.0 * 60) / 29500);
        foreach ([40.0, 90.0, 140.0] as $hz) {
            $peak = 0.0;
            for ($i = 0; $i < 6000; ++$i) {
                $out = $bank->filter($i, [100 * sin((2 * \M_PI * $hz * $i) / self::HZ), 0.0, 0.0], $speed);
                $peak = $i > 4000 ? max($peak, abs($out[0])) : 0.0;
            }
            $expected = 100.0;
            $notch = FilterStage::notch(140.0, $set->number('notch.motor.width_pct', 23), self::HZ);
            foreach ([...array_fill(0, 4, $notch), ...$control->ratePath] as $stage) {
                [$re, $im] = self::response($stage, $hz);
                $expected *= hypot($re, $im);
            }
            self::assertEqualsWithDelta($expected, $peak, 1.5, "$hz Hz");
        }
    }

    /** A pack gives what it is asked, and comes to rest where its curve and its resistance say. */
    public function testAPackSagsByItsResistance(): void
    {
        $craft = Scenario::craft()['curlew']->physics;
        $pack = new Pack($craft, 0.2);
        for ($i = 0; $i < 4000; ++$i) {
            $pack->give(30.0, 0.0005);
        }
        self::assertEqualsWithDelta(0.2 + (30 * 2) / 3600 / $craft->packAh, $pack->charge, 1e-9);
        self::assertEqualsWithDelta($craft->restVoltage($pack->charge) - 30 * $craft->packOhm, $pack->volts, 0.01);
        self::assertEqualsWithDelta(2 * $craft->packOhm, $craft->withPack(2.0)->packOhm, 1e-12);
        self::assertSame($craft->frame, $craft->withPack(2.0)->frame);
    }

    public function testAltitudeHoldFliesAwayFromNothingAndClimbsByTheStick(): void
    {
        $hold = new AltitudeHold(SettingSet::of(['throttle.hover_stick_pct' => 50.0]), 10.0, 40.0);
        self::assertEqualsWithDelta(40.0, $hold->throttle(0.5, 10.0, 0.0, 0.002), 1e-6, 'where it is, it stays');
        self::assertGreaterThan(40.0, $hold->throttle(0.5, 9.0, 0.0, 0.002));
        self::assertLessThan(40.0, $hold->throttle(0.5, 10.0, 1.0, 0.002));
        // A mass that answers throttle with acceleration: full stick climbs at the fastest rate and no faster.
        [$height, $climb] = [10.0, 0.0];
        for ($i = 0; $i < 6000; ++$i) {
            $climb += 0.4 * ($hold->throttle(1.0, $height, $climb, 0.002) - 40.0) * 0.002;
            $height += $climb * 0.002;
        }
        self::assertEqualsWithDelta(2.5, $climb, 0.1);
        $before = $height;
        for ($i = 0; $i < 6000; ++$i) {
            $climb += 0.4 * ($hold->throttle(0.5, $height, $climb, 0.002) - 40.0) * 0.002;
            $height += $climb * 0.002;
        }
        self::assertEqualsWithDelta(0.0, $climb, 0.05);
        self::assertLessThan(3.5, abs($height - $before));
    }

    /** The pilot finds the levers by what they turn on, and moves no more of them than needed. */
    public function testLeversAreFoundByWhatTheyTurnOn(): void
    {
        $set = self::settings([
            'action.arm.on_in' => '5:1750-',
            'action.angle.on_in' => '6:-1250',
            'action.beeper.on_in' => '5:1250-1750',
            'action.self_right.on_in' => '7:1500-',
        ]);
        $state = new RadioState();
        $levers = Levers::of(Road::of($state, Rill::C, $set), $set, [Action::Angle]);
        self::assertContains(Action::Arm, $levers->on);
        self::assertContains(Action::Angle, $levers->on);
        self::assertNotContains(Action::SelfRight, $levers->on);
        self::assertCount(
            1,
            array_filter(array_keys($levers->armed), static fn (int $i): bool => $levers->armed[$i] !== $levers->disarmed[$i]),
        );
        $rates = Levers::of(Road::of($state, Rill::C, $set), $set, []);
        self::assertNotContains(Action::Angle, $rates->on, 'who wants rates flicks the lever away from angle');
        $none = self::settings(['action.arm.on_in' => '']);
        $unarmed = Levers::of(Road::of($state, Rill::C, $none), $none, [Action::Angle]);
        self::assertNotContains(Action::Arm, $unarmed->on, 'nothing arms, nothing is armed');
    }

    public function testAnItineraryGoesInStraightLinesAndComesDown(): void
    {
        $plan = Itinerary::landing([[0.0, 0.0, 0.0, 0.0, 0.0], [4.0, 8.0, -4.0, 2.0, 90.0]]);
        [$at, $going] = $plan->at(1.0);
        self::assertEqualsWithDelta([2.0, -1.0, 0.5, 22.5], $at, 1e-9);
        self::assertEqualsWithDelta([2.0, -1.0, 0.5], $going, 1e-9);
        self::assertFalse($plan->isDown(3.0));
        self::assertTrue($plan->isDown($plan->endsS() - 0.1));
        self::assertLessThan(0.0, $plan->at(1000.0)[0][2]);
        foreach (Itinerary::maiden()->sketch(40, 3) as $frame) {
            self::assertCount(4, $frame);
            self::assertLessThanOrEqual(1.0, max(array_map(abs(...), $frame)));
        }
    }

    public function testTheRadioGoesOffWhereItWasTold(): void
    {
        $craft = Scenario::craft()['curlew']->physics;
        $motion = new Motion($craft, Feet::of($craft));
        $there = SwitchOff::there(20.0, 30.0);
        foreach ([[0.0, 0.0, 20.0, false], [30.0, 0.0, 10.0, false], [18.0, 24.0, 20.0, true]] as [$north, $east, $height, $due]) {
            $motion->at = [$north, $east, -$height];
            self::assertSame($due, $there->isDue(100.0, $motion));
        }
        self::assertFalse(SwitchOff::at(2.0)->isDue(1.9, $motion));
        self::assertTrue(SwitchOff::at(2.0)->isDue(2.0, $motion));
    }

    /** @return array{float, float} of H at a frequency */
    private static function response(FilterStage $f, float $hz): array
    {
        $w = (2 * \M_PI * $hz) / self::HZ;
        $num = [$f->b0 + $f->b1 * cos($w) + $f->b2 * cos(2 * $w), -$f->b1 * sin($w) - $f->b2 * sin(2 * $w)];
        $den = [1 + $f->a1 * cos($w) + $f->a2 * cos(2 * $w), -$f->a1 * sin($w) - $f->a2 * sin(2 * $w)];
        $size = $den[0] ** 2 + $den[1] ** 2;

        return [($num[0] * $den[0] + $num[1] * $den[1]) / $size, ($num[1] * $den[0] - $num[0] * $den[1]) / $size];
    }

    /** @param array<string, float|int|bool|string> $changed */
    private static function settings(array $changed = []): SettingSet
    {
        return Catalogue::loam()
            ->defaults(Version::parse(Catalogue::CURRENT))
            ->with(Scenario::craft()['curlew']->settings)
            ->with($changed);
    }
}
