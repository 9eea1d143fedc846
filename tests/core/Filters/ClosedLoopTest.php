<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Filters;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Filters\ClosedLoop;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\Filters\WhatIfDoubt;
use Ortholex\Core\Tuning\AxisPlant;
use PHPUnit\Framework\TestCase;

/** What shakes a craft from outside comes through 1/(1 + L): other filters, another L. */
final class ClosedLoopTest extends TestCase
{
    private const FLOWN = [
        'gain.roll.p' => 25.0,
        'gain.roll.i' => 0.0,
        'gain.roll.d' => 0.0,
        'motors.loop_rate_hz' => '2000',
        'rate_path.stage.1.kind' => 'first_order',
        'rate_path.stage.1.cutoff_hz' => 180.0,
        'motors.rpm_feedback' => true,
    ];

    /** A plant k/(s + a)·lag·dead time and P alone, written out by hand at a few frequencies. */
    public function testIsTheRatioOfTheTwoLoops(): void
    {
        $plant = AxisPlant::known(600.0, 0.025, 0.0, 0.1);
        $flown = SettingSet::of(self::FLOWN);
        $ratio = (new ClosedLoop(['roll' => $plant], $flown, []))->ratio(Axis::Roll, $flown->with(['rate_path.stage.1.cutoff_hz' => 60.0]));
        self::assertNotNull($ratio);
        foreach ([10.0, 25.0, 50.0, 100.0] as $hz) {
            $one = static function (float $cutoff) use ($hz, $plant): float {
                $w = 2 * \M_PI * $hz;
                [$gr, $gi] = $plant->response($w);
                // A first-order low-pass, 1/(1 + jf/fc): at 2 kHz and below 100 Hz its digital kin is within a hundredth.
                [$fr, $fi] = [1 / (1 + ($hz / $cutoff) ** 2), -($hz / $cutoff) / (1 + ($hz / $cutoff) ** 2)];
                [$lr, $li] = [0.25 * ($gr * $fr - $gi * $fi), 0.25 * ($gr * $fi + $gi * $fr)];

                return (1 + $lr) ** 2 + $li ** 2;
            };
            self::assertEqualsWithDelta(1.0, $ratio($hz) / ($one(180.0) / $one(60.0)), 0.06, "$hz Hz");
        }
        self::assertSame(1.0, $ratio(400.0), 'no loop reaches there');
        self::assertSame(1.0, $ratio(0.0));
    }

    public function testTheSameChainLeavesAllAsItWas(): void
    {
        $loop = new ClosedLoop(['roll' => AxisPlant::known(600.0, 0.025, 0.001, 0.1)], SettingSet::of(self::FLOWN), [170.0]);
        self::assertNull($loop->ratio(Axis::Roll, SettingSet::of(self::FLOWN)));
        $other = SettingSet::of(['rate_path.stage.1.cutoff_hz' => 60.0]);
        self::assertNull($loop->ratio(Axis::Pitch, $other), 'of that axis nothing is known');
        // A chain without gains is flown with those of the log.
        $chain = SettingSet::of(['rate_path.stage.1.kind' => 'first_order', 'rate_path.stage.1.cutoff_hz' => 60.0]);
        self::assertNotNull($loop->ratio(Axis::Roll, $chain));
    }

    /** A plant that explains little of what the axis did changes nothing, and the doubt stays. */
    public function testWhatIsNotKnownIsNotReckonedWith(): void
    {
        $log = KnownShake::log(2000, 20, [], 5.0, 0.0);
        $chain = SettingSet::of(self::FLOWN)->with(['rate_path.stage.1.cutoff_hz' => 60.0]);
        $flown = SettingSet::of(self::FLOWN);
        $doubts = static fn (WhatIf $of): array => array_map(static fn (Fact $f): string => (string) $f->code->value, $of->doubts);
        $open = WhatIf::of($log, $chain);
        $vague = WhatIf::of($log, $chain, new ClosedLoop(['roll' => AxisPlant::known(600.0, 0.025, 0.001, 0.6)], $flown, []));
        self::assertSame($open->axes['roll']->residualDps, $vague->axes['roll']->residualDps);
        self::assertContains(WhatIfDoubt::OpenLoop->value, $doubts($vague));
        $known = WhatIf::of($log, $chain, new ClosedLoop(['roll' => AxisPlant::known(600.0, 0.025, 0.001, 0.1)], $flown, []));
        self::assertNotContains(WhatIfDoubt::OpenLoop->value, $doubts($known), 'its only axis is known');
        self::assertNotEqualsWithDelta($open->axes['roll']->residualDps, $known->axes['roll']->residualDps, 0.01);
        self::assertSame($open->axes['roll']->delayMs, $known->axes['roll']->delayMs);
    }

    /** However wild a plant is, no figure leaves what could be believed. */
    public function testItStaysWithinWhatCouldBeBelieved(): void
    {
        foreach ([10.0, 600.0, 5000.0] as $gain) {
            foreach ([0.005, 0.05] as $lag) {
                $loop = new ClosedLoop(['roll' => AxisPlant::known($gain, $lag, 0.003, 0.1)], SettingSet::of(self::FLOWN), []);
                $ratio = $loop->ratio(Axis::Roll, SettingSet::of(self::FLOWN)->with(['rate_path.stage.1.cutoff_hz' => 40.0]));
                for ($hz = 1.0; $hz < 500; $hz += 3) {
                    self::assertGreaterThanOrEqual(0.25, null === $ratio ? 1.0 : $ratio($hz));
                    self::assertLessThanOrEqual(4.0, null === $ratio ? 1.0 : $ratio($hz));
                }
            }
        }
    }
}
