<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Flight;

use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\Airframe\Feet;
use Ortholex\Bench\Flight\Surroundings\Motion;
use Ortholex\Bench\Flight\Surroundings\Wind;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Demo\Scenario;
use PHPUnit\Framework\TestCase;

/** A body in the world against closed forms (Beer and Johnston, Vector Mechanics for Engineers: Dynamics). */
final class MotionTest extends TestCase
{
    private const G = 9.81;
    private const DT = 0.0005;
    private const CALM = [0.0, 0.0, 0.0];

    /** v = v_t·tanh(g·t/v_t), and the way fallen v_t²/g·ln cosh(g·t/v_t). */
    public function testItFallsAsAStoneInAir(): void
    {
        $craft = self::motion('curlew', 2000.0);
        $rate = self::CALM;
        $at = 0;
        foreach ([0.5, 1.0, 2.0, 4.0, 8.0] as $until) {
            for (; $at < $until / self::DT; ++$at) {
                $rate = $craft->fly($rate, 0.0, self::CALM, self::DT);
            }
            $t = self::G * $until / 20.0;
            self::assertEqualsWithDelta(20.0 * tanh($t), $craft->speed[2], 0.01, "after $until s");
            self::assertEqualsWithDelta((20.0 ** 2 / self::G) * log(cosh($t)), 2000.0 - $craft->height(), 0.05, "after $until s");
        }
        self::assertSame(self::CALM, $rate, 'nothing turns it');
    }

    public function testItHoversWhereLiftIsWeight(): void
    {
        $craft = self::motion('bittern', 10.0);
        for ($i = 0; $i < 20_000; ++$i) {
            $craft->fly(self::CALM, Scenario::craft()['bittern']->physics->massKg * self::G, self::CALM, self::DT);
        }
        self::assertEqualsWithDelta(10.0, $craft->height(), 1e-9);
        self::assertEqualsWithDelta([0.0, 0.0, -1.0], $craft->felt, 1e-9, 'an accelerometer at rest feels one gravity upward');
    }

    /** At a tilt of 45° that holds its height, drag is its weight: at the speed that was given. */
    public function testItsLevelSpeedAtFortyFiveDegrees(): void
    {
        $physics = Scenario::craft()['curlew']->physics;
        $craft = self::motion('curlew', 50.0);
        for ($i = 0; $i < 1000; ++$i) {
            $craft->turn([0.0, -90.0, 0.0], self::DT);
        }
        for ($i = 0; $i < 60_000; ++$i) {
            $craft->fly(self::CALM, $physics->massKg * self::G * sqrt(2), self::CALM, self::DT);
        }
        self::assertEqualsWithDelta($physics->tilted45Ms, $craft->speed[0], 0.01);
        self::assertEqualsWithDelta(50.0, $craft->height(), 0.1);
    }

    /** Drag by the square of what is left of the wind: u = u₀/(1 + u₀·g·t/v₄₅²). */
    public function testItDriftsWithTheWindMoreAndMore(): void
    {
        $physics = Scenario::craft()['curlew']->physics;
        $craft = self::motion('curlew', 50.0);
        $wind = new Wind(6.0, 90.0, 0.0, 1);
        for ($i = 1; $i <= 120_000; ++$i) {
            $wind->step(self::DT);
            $craft->fly(self::CALM, $physics->massKg * self::G, $wind->now, self::DT);
            if (0 === $i % 20_000) {
                $left = 6.0 / (1 + (6.0 * self::G * $i * self::DT) / $physics->tilted45Ms ** 2);
                self::assertEqualsWithDelta($left - 6.0, $craft->speed[1], 0.005, 'wind from the east carries it west');
            }
        }
        self::assertEqualsWithDelta(0.0, $craft->speed[0], 1e-6);
    }

    /** A pirouette: about its own upright, in hover, it goes nowhere. */
    public function testAPirouetteStaysInPlace(): void
    {
        $physics = Scenario::craft()['curlew']->physics;
        $craft = self::motion('curlew', 10.0);
        $rate = [0.0, 0.0, 200.0];
        for ($i = 0; $i < 3600; ++$i) {
            $rate = $craft->fly($rate, $physics->massKg * self::G, self::CALM, self::DT);
        }
        self::assertEqualsWithDelta([0.0, 0.0, 200.0], $rate, 1e-9);
        self::assertEqualsWithDelta(0.0, abs($craft->lean()[2]), 0.01, 'one whole turn in 1.8 s');
        self::assertEqualsWithDelta([0.0, 0.0, -10.0], $craft->at, 1e-9);
    }

    /**
     * A flat spin, free of torque: a body with two like axes keeps its spin r about the third, and what it turns across goes round at
     * (I₃ − I₁)/I₁·r.
     */
    public function testAFlatSpinGoesRoundAsEulerSays(): void
    {
        $physics = Scenario::craft()['bittern']->physics;
        self::assertSame($physics->inertia[0], $physics->inertia[1]);
        $round = (($physics->inertia[2] - $physics->inertia[0]) / $physics->inertia[0]) * deg2rad(400.0);
        $craft = self::motion('bittern', 500.0);
        $rate = [60.0, 0.0, 400.0];
        for ($i = 1; $i <= 2000; ++$i) {
            $rate = $craft->fly($rate, 0.0, self::CALM, self::DT);
            if (0 === $i % 500) {
                $t = $i * self::DT;
                self::assertEqualsWithDelta(60.0 * cos($round * $t), $rate[0], 0.6, "roll after $t s");
                self::assertEqualsWithDelta(60.0 * sin($round * $t), $rate[1], 0.6, "pitch after $t s");
                self::assertEqualsWithDelta(400.0, $rate[2], 0.01);
            }
        }
    }

    /** Falling and tumbling without motors, bouncing and sliding until it lies: energy only goes. */
    public function testEnergyNeverGrowsInAPassiveFall(): void
    {
        foreach (['dunlin', 'curlew', 'bittern'] as $name) {
            foreach ([[0.0, 0.0, 0.0], [200.0, -90.0, 40.0], [-350.0, 300.0, 500.0]] as $rate) {
                $physics = Scenario::craft()[$name]->physics;
                $craft = self::motion($name, 6.0);
                $before = $atFirst = \INF;
                for ($i = 0; $i < 16_000; ++$i) {
                    $rate = $craft->fly($rate, 0.0, self::CALM, self::DT);
                    $now = self::energy($craft, $physics, $rate);
                    // In the air it never grows; what the ground holds for a moment as a spring does is never more than it was given.
                    $limit = \INF === $atFirst ? $before : $atFirst;
                    self::assertLessThanOrEqual($limit + 1e-5 * $physics->massKg * self::G * 6, $now, "$name after ".$i * self::DT.' s');
                    $before = $now;
                    $atFirst = $craft->touches && \INF === $atFirst ? $now : $atFirst;
                }
                self::assertEqualsWithDelta(
                    Feet::of($physics)->leg,
                    $craft->height(),
                    0.004,
                    "$name lies at last, on its legs or its back",
                );
                self::assertEqualsWithDelta([0.0, 0.0, 0.0], $craft->speed, 1e-3);
            }
        }
    }

    public function testGustsAreOfTheSizeThatWasAskedAndComeBack(): void
    {
        $wind = new Wind(5.0, 0.0, 1.5, 7);
        $north = [];
        for ($i = 0; $i < 400_000; ++$i) {
            $wind->step(0.005);
            $north[] = $wind->now[0];
        }
        self::assertEqualsWithDelta(-5.0, Statistics::mean($north), 0.15);
        self::assertEqualsWithDelta(1.5, Statistics::deviation($north), 0.12);
        $again = new Wind(5.0, 0.0, 1.5, 7);
        $again->step(0.005);
        self::assertSame($north[0], $again->now[0]);
    }

    /** @param array<int, float> $rate */
    private static function energy(Motion $craft, CraftPhysics $physics, array $rate): float
    {
        $moves = 0.5 * $physics->massKg * ($craft->speed[0] ** 2 + $craft->speed[1] ** 2 + $craft->speed[2] ** 2);
        $turns = 0.0;
        foreach ($physics->inertia as $i => $inertia) {
            $turns += 0.5 * $inertia * deg2rad($rate[$i]) ** 2;
        }

        return $moves + $turns + $physics->massKg * self::G * $craft->height();
    }

    private static function motion(string $name, float $height): Motion
    {
        $physics = Scenario::craft()[$name]->physics;
        $motion = new Motion($physics, Feet::of($physics));
        $motion->at[2] = -$height;

        return $motion;
    }
}
