<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\Drive\Rotor;
use Ortholex\Bench\Flight\Airframe\Body;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\Sensors\Noise;
use Ortholex\Bench\Flight\Sensors\NoisePool;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Filters\TrackingNotches;
use Ortholex\Demo\DemoCraft;
use Ortholex\Demo\Scenario;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What the stand-ins fly by follows from mechanics; figures by hand. */
final class PhysicsTest extends TestCase
{
    private const STEP_S = 1 / 4000;

    /** @return iterable<string, array{CraftPhysics}> */
    public static function craft(): iterable
    {
        foreach (Scenario::craft() as $name => $demo) {
            yield $name => [$demo->physics];
        }
    }

    /** @return iterable<string, array{DemoCraft}> */
    public static function demo(): iterable
    {
        foreach (Scenario::craft() as $name => $demo) {
            yield $name => [$demo];
        }
    }

    public function testAMotorTurnsTheCraftByItsLeverAndTheInertia(): void
    {
        $curlew = Scenario::craft()['curlew']->physics;
        $body = Body::of($curlew, [], self::STEP_S);
        foreach ($curlew->frame->motors as $i => $motor) {
            // Angular acceleration is lever times thrust over inertia; a motor on the right rolls to the left, one ahead pitches up.
            self::assertEqualsWithDelta(rad2deg(-$motor->y * 13.0 / 0.0029), $body->effect[$i][0], 1e-6);
            self::assertEqualsWithDelta(rad2deg($motor->x * 13.0 / 0.0033), $body->effect[$i][1], 1e-6);
            self::assertSame(-$motor->spin, $body->effect[$i][2] <=> 0.0, 'the craft is turned against its prop');
        }
    }

    #[DataProvider('craft')]
    public function testAllMotorsAlikeTurnTheCraftNowhere(CraftPhysics $craft): void
    {
        $body = Body::of($craft, [], self::STEP_S);
        for ($axis = 0; $axis < 3; ++$axis) {
            self::assertEqualsWithDelta(0.0, array_sum(array_column($body->effect, $axis)), 1e-6);
        }
        self::assertSame(array_fill(0, \count($craft->frame->motors), 1.0), $body->pushes);
    }

    #[DataProvider('craft')]
    public function testItLiftsItsWeightWithPlentyToSpare(CraftPhysics $craft): void
    {
        $thrust = $craft->thrustN * \count($craft->frame->motors);
        self::assertGreaterThan(2.5 * 9.81 * $craft->massKg, $thrust);
        self::assertLessThan(20 * 9.81 * $craft->massKg, $thrust, 'and not like nothing that is sold');
    }

    #[DataProvider('craft')]
    public function testARotorIsAtTwoThirdsAfterItsLagAndSlowsDownMoreLazily(CraftPhysics $craft): void
    {
        $body = Body::of($craft, [], self::STEP_S);
        $speed = 0.0;
        for ($t = 0.0; $t < $craft->motorLagS - self::STEP_S / 2; $t += self::STEP_S) {
            $speed += $body->lagUp * (1.0 - $speed);
        }
        self::assertEqualsWithDelta(1 - exp(-1), $speed, 0.01);
        self::assertLessThan($body->lagUp, $body->lagDown);
    }

    #[DataProvider('craft')]
    public function testAPropTurnedBackwardPushesDownWeaklyAndTurnsTheCraftTheOtherWay(CraftPhysics $craft): void
    {
        $sound = Body::of($craft, [], self::STEP_S);
        $place = $craft->frame->motors[0]->place;
        $faulty = Body::of($craft, ["backward:$place"], self::STEP_S);
        self::assertLessThan(0.0, $faulty->pushes[0]);
        self::assertLessThan(0.0, $faulty->effect[0][2] * $sound->effect[0][2]);
        foreach (\array_slice(array_keys($craft->frame->motors), 1) as $i) {
            self::assertSame($sound->effect[$i], $faulty->effect[$i], 'the others are as they were');
        }
    }

    #[DataProvider('craft')]
    public function testTheBoardCommandsWhatTheCraftThenDoes(CraftPhysics $craft): void
    {
        $body = Body::of($craft, [], self::STEP_S);
        foreach (Mixer::of($craft->frame)->shares as $i => $share) {
            for ($axis = 0; $axis < 3; ++$axis) {
                if (abs($share[$axis]) > 0.05) {
                    self::assertGreaterThan(0.0, $share[$axis] * $body->effect[$i][$axis], "motor $i, axis $axis");
                }
            }
        }
    }

    #[DataProvider('craft')]
    public function testAPackFallsFromFullToEmptyAndNeverRises(CraftPhysics $craft): void
    {
        self::assertEqualsWithDelta(4.2 * $craft->cells, $craft->restVoltage(0.0), 1e-9);
        $before = \INF;
        for ($used = 0.0; $used <= 1.0; $used += 0.01) {
            $volts = $craft->restVoltage($used);
            self::assertLessThan($before, $volts);
            $before = $volts;
        }
        self::assertGreaterThan(3.0 * $craft->cells, $before);
        self::assertLessThan(3.4 * $craft->cells, $before);
        // The knee: the last tenth falls faster than the one before it.
        self::assertGreaterThan($craft->restVoltage(0.8) - $craft->restVoltage(0.9), $craft->restVoltage(0.9) - $craft->restVoltage(1.0));
    }

    #[DataProvider('demo')]
    public function testEachPadHasItsMotorAndEachMotorItsPad(DemoCraft $demo): void
    {
        $places = $demo->physics->frame->places();
        self::assertEqualsCanonicalizing($places, array_values($demo->physics->wiredPads));
        self::assertEqualsCanonicalizing(array_keys($demo->physics->wiredPads), array_keys($demo->physics->escs));
        self::assertSameSize($places, $demo->physics->imbalance);
    }

    public function testARotorStartsAtItsOutputAndTurnsInProportion(): void
    {
        foreach (range(1, 8) as $pad) {
            $rotor = new Rotor($pad, true, false, 30000.0);
            self::assertGreaterThan(2.2, $rotor->startsAt());
            self::assertLessThan(3.3, $rotor->startsAt());
            self::assertFalse($rotor->turnsAt($rotor->startsAt() - 0.1));
            self::assertTrue($rotor->turnsAt($rotor->startsAt() + 0.1));
            $mean = static fn (float $pct): float => array_sum($rotor->rpm($pct, 0.0, 2000)) / 2000;
            self::assertEqualsWithDelta(0.1 * 30000, $mean(10.0), 0.02 * 3000);
            self::assertEqualsWithDelta(2 * $mean(6.0), $mean(12.0), 0.02 * $mean(12.0));
            self::assertSame([0.0, 0.0, 0.0], $rotor->rpm(1.0, 5.0, 3), 'below its start it stands');
        }
    }

    public function testItTurnsTheMoreEvenlyTheFurtherItIsAboveItsStart(): void
    {
        $rotor = new Rotor(2, true, false, 30000.0);
        $spread = static function (float $pct) use ($rotor): float {
            $rpm = $rotor->rpm($pct, 0.0, 400);
            $mean = array_sum($rpm) / \count($rpm);

            return sqrt(array_sum(array_map(static fn (float $r): float => ($r - $mean) ** 2, $rpm)) / \count($rpm)) / $mean;
        };
        $before = \INF;
        foreach ([0.2, 0.6, 1.2, 2.5] as $over) {
            $now = $spread($rotor->startsAt() + $over);
            self::assertLessThan($before, $now);
            $before = $now;
        }
        self::assertLessThan(0.02, $before);
    }

    public function testAWeakOneStartsLaterAndStalls(): void
    {
        $sound = new Rotor(3, true, false, 30000.0);
        $weak = new Rotor(3, true, true, 30000.0);
        self::assertEqualsWithDelta($sound->startsAt() + 2.2, $weak->startsAt(), 1e-9);
        self::assertContains(0.0, $weak->rpm(6.0, 0.0, 400));
        self::assertNotContains(0.0, $sound->rpm(6.0, 0.0, 400));
        self::assertFalse((new Rotor(3, false, false, 30000.0))->turnsAt(100.0), 'an ESC that is not driven turns nothing');
    }

    public function testNoiseIsTheSameForASeedAndOtherForAnother(): void
    {
        self::assertSame((new Noise(7))->block(64), (new Noise(7))->block(64));
        self::assertNotSame((new Noise(7))->block(64), (new Noise(8))->block(64));
        $pool = new NoisePool(7);
        $pool->have(100);
        self::assertSame((new Noise(7))->block(8192), $pool->values);
        $pool->at = 8190;
        $pool->have(2);
        self::assertSame(8190, $pool->at, 'two still lie ahead');
        $pool->have(3);
        self::assertSame(0, $pool->at, 'a new block is drawn');
    }

    /** @return iterable<string, array{float, float, float}> loop rate, low, high */
    public static function bands(): iterable
    {
        yield 'two thousand' => [2000.0, 80.0, 600.0];
        yield 'four thousand' => [4000.0, 100.0, 500.0];
        yield 'one thousand' => [1000.0, 60.0, 400.0];
    }

    #[DataProvider('bands')]
    public function testNotchesThatFollowSettleOnWhatRings(float $rate, float $low, float $high): void
    {
        $rings = [$low + 0.3 * ($high - $low), $low + 0.7 * ($high - $low)];
        $notches = new TrackingNotches(2, $low, $high, $rate);
        $moved = 0;
        for ($i = 0; $i < 3 * $rate; ++$i) {
            $t = $i / $rate;
            $moved += $notches->push(8 * sin(2 * \M_PI * $rings[0] * $t) + 5 * sin(2 * \M_PI * $rings[1] * $t)) ? 1 : 0;
        }
        self::assertGreaterThan(10, $moved);
        foreach ($rings as $n => $hz) {
            self::assertEqualsWithDelta($hz, $notches->centres[$n], $rate / 256, 'within a bin');
        }
    }

    public function testWhatRingsOutsideTheBandMovesNothing(): void
    {
        $notches = new TrackingNotches(2, 80.0, 600.0, 2000.0);
        $at = $notches->centres;
        self::assertEqualsWithDelta([80 + 520 / 3, 80 + 2 * 520 / 3], $at, 1e-9, 'spread over the band to begin with');
        for ($i = 0; $i < 4000; ++$i) {
            $notches->push(0.0);
        }
        self::assertSame($at, $notches->centres, 'silence has no peak');
        for ($i = 0; $i < 8000; ++$i) {
            $notches->push(20 * sin((2 * \M_PI * 30 * $i) / 2000));
        }
        foreach ($notches->centres as $hz) {
            self::assertGreaterThanOrEqual(75.0, $hz);
            self::assertLessThanOrEqual(605.0, $hz);
        }
    }

    public function testAFrameOfAnyCraftIsTheOneItsSettingsDescribe(): void
    {
        foreach (Scenario::craft() as $name => $demo) {
            $told = Airframe::of(\Ortholex\Core\Craft\SettingSet::of($demo->settings));
            if ('dunlin' === $name) {
                continue; // its settings are wrong: that is its story
            }
            self::assertSame($demo->physics->frame->places(), $told->places(), $name);
        }
    }
}
