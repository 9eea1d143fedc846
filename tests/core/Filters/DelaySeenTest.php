<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Filters;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\DelaySeen;
use Ortholex\Core\Filters\MovingNotches;
use PHPUnit\Framework\TestCase;

/** Notches whose place over the flight is known: the delay is that of their H averaged in time, by the closed form of a notch. */
final class DelaySeenTest extends TestCase
{
    private const LOOP_HZ = 4000.0;

    public function testOfRotorsThatStandStillItIsTheNotchesOwn(): void
    {
        $set = SettingSet::of(['notch.motor.orders' => '1', 'notch.motor.width_pct' => 25.0, 'motors.rpm_feedback' => true]);
        $moving = MovingNotches::of($set, self::LOOP_HZ);
        $rotors = array_fill(0, 4, [array_fill(0, 20_000, 150.0)]);
        $delay = DelaySeen::in([20_000], 1000.0)->of($moving, $rotors, [], [20_000]);
        // Four notches (ω0² − ω²)/(ω0² − ω² + jωω0/Q), Q = 1/0.25: each turns by −atan(w/(Q(1 − w²))) at w = 30/150.
        $w = 30 / 150;
        self::assertEqualsWithDelta((4 * atan(($w * 0.25) / (1 - $w * $w))) / (2 * \M_PI * 30), $delay, 0.02e-3);
    }

    public function testOfRotorsThatChangeItIsTheMeanOverTimeHoweverTheCraftMoves(): void
    {
        $set = SettingSet::of(['notch.motor.orders' => '1', 'notch.motor.width_pct' => 25.0, 'motors.rpm_feedback' => true]);
        $moving = MovingNotches::of($set, self::LOOP_HZ);
        // A quarter of the time at 100 Hz, the rest at 200: many moments, evenly.
        $speeds = [...array_fill(0, 10_000, 100.0), ...array_fill(0, 30_000, 200.0)];
        $delay = DelaySeen::in([40_000], 1000.0)->of($moving, [[$speeds]], [], [40_000]);
        $re = $im = 0.0;
        foreach ([[0.25, 100.0], [0.75, 200.0]] as [$share, $hz]) {
            [$r, $i] = $moving->at([$hz], [])->response(30.0);
            $re += $share * $r;
            $im += $share * $i;
        }
        self::assertEqualsWithDelta(-atan2($im, $re) / (2 * \M_PI * 30), $delay, 0.02e-3);
    }

    public function testWithoutNotchesOrMomentsThereIsNone(): void
    {
        $off = MovingNotches::of(SettingSet::none(), self::LOOP_HZ);
        self::assertSame(0.0, DelaySeen::in([5000], 1000.0)->of($off, [], [], [5000]));
        $set = SettingSet::of(['notch.motor.orders' => '1', 'motors.rpm_feedback' => true]);
        $moving = MovingNotches::of($set, self::LOOP_HZ);
        self::assertSame(0.0, DelaySeen::in([300], 1000.0)->of($moving, [[array_fill(0, 300, 150.0)]], [], [300]), 'shorter than its ends');
        self::assertSame(0.0, DelaySeen::in([], 1000.0)->of($moving, [], [], []));
    }
}
