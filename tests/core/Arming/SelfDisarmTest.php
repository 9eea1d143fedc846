<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Arming;

use Ortholex\Core\Arming\SelfDisarm;
use Ortholex\Core\Arming\Stopped;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** What stops a craft by itself, to the second that was set. */
final class SelfDisarmTest extends TestCase
{
    private const DT = 0.02;

    /** @var array<string, float> */
    private const SET = [
        'disarm.upside_down_s' => 2.0,
        'disarm.still_s' => 10.0,
        'disarm.unasked_turn_s' => 0.4,
        'throttle.hover_output_pct' => 40.0,
    ];

    public function testUpsideDownCountsWithoutAPause(): void
    {
        $watch = SelfDisarm::in(SettingSet::of(self::SET));
        self::assertEqualsWithDelta(2.0, $this->stops($watch, Stopped::UpsideDown, lean: 170.0, throttle: 0.3), 0.03);
        $watch = SelfDisarm::in(SettingSet::of(self::SET));
        // Every second and a half it comes upright for a moment: it never lies for two.
        for ($i = 0; $i < 1000; ++$i) {
            $lean = 0 === $i % 75 ? 5.0 : 170.0;
            self::assertNull($watch->look(self::DT, true, $lean, 30.0, 30.0, 0.3, false), "after $i looks");
        }
        self::assertNull(
            $this->stops(SelfDisarm::in(SettingSet::of(self::SET)), Stopped::UpsideDown, lean: 170.0, throttle: 0.3, righting: true),
        );
    }

    public function testStillTakesALittleTremblingForStill(): void
    {
        $watch = SelfDisarm::in(SettingSet::of(self::SET));
        self::assertEqualsWithDelta(10.0, $this->stops($watch, Stopped::StillOnGround, lean: 2.0, throttle: 0.0, turn: 2.0), 0.1);
        foreach ([['turn' => 8.0], ['throttle' => 0.2]] as $moving) {
            $watch = SelfDisarm::in(SettingSet::of(self::SET));
            self::assertNull($this->stops($watch, Stopped::StillOnGround, ...['lean' => 2.0, 'throttle' => 0.0] + $moving));
        }
    }

    public function testAnUnaskedTurnCountsOnlyBeforeItHasLifted(): void
    {
        $watch = SelfDisarm::in(SettingSet::of(self::SET));
        self::assertEqualsWithDelta(0.4, $this->stops($watch, Stopped::UnaskedTurn, lean: 20.0, throttle: 0.1, turn: 200.0), 0.03);
        $watch = SelfDisarm::in(SettingSet::of(self::SET));
        self::assertNull(
            $this->stops($watch, Stopped::UnaskedTurn, lean: 20.0, throttle: 0.1, turn: 200.0, asked: 180.0),
            'it was asked for',
        );
        $flown = SelfDisarm::in(SettingSet::of(self::SET));
        for ($i = 0; $i < 60; ++$i) {
            $flown->look(self::DT, true, 5.0, 10.0, 10.0, 0.4, false);
        }
        self::assertNull($flown->look(1.0, true, 20.0, 400.0, 0.0, 0.4, false), 'in the air a turn is the loop\'s to hold');
    }

    public function testEachCanBeOffAndDisarmingForgets(): void
    {
        $off = SettingSet::of(['disarm.upside_down_s' => 0.0, 'disarm.still_s' => 0.0, 'disarm.unasked_turn_s' => 0.0]);
        $watch = SelfDisarm::in($off);
        for ($i = 0; $i < 3000; ++$i) {
            self::assertNull($watch->look(self::DT, true, 175.0, 0.0, 0.0, 0.0, false));
        }
        $watch = SelfDisarm::in(SettingSet::of(self::SET));
        $watch->look(1.9, true, 175.0, 30.0, 30.0, 0.3, false);
        $watch->look(self::DT, false, 175.0, 30.0, 30.0, 0.3, false);
        self::assertNull($watch->look(1.0, true, 175.0, 30.0, 30.0, 0.3, false), 'it begins anew with arming');
    }

    /** Kept between looks and by the clock it says the same as in one go. */
    public function testKeptBetweenLooksItIsTheSame(): void
    {
        $dice = new Lcg(5);
        $one = SelfDisarm::in(SettingSet::of(self::SET));
        $kept = [];
        $now = 100.0;
        SelfDisarm::in(SettingSet::of(self::SET))->from($kept);
        for ($i = 0; $i < 400; ++$i) {
            $dt = 0.02 + 0.05 * ($dice->next() + 0.5);
            $now += $dt;
            [$lean, $turn, $throttle] = [180 * ($dice->next() + 0.5), 40 * ($dice->next() + 0.5), 0.5 * ($dice->next() + 0.5)];
            $other = SelfDisarm::in(SettingSet::of(self::SET))->from($kept + ['at' => $now - $dt]);
            $expected = $one->look($dt, true, $lean, $turn, $turn, $throttle, false);
            self::assertSame($expected, $other->looked($now, true, $lean, $turn, $turn, $throttle, false));
            $kept = $other->toArray();
        }
        self::assertSame([], array_filter(SelfDisarm::in(SettingSet::none())->from(['still' => 'x', 'at' => []])->toArray()));
    }

    /** Seconds until it stops; null where it does not within half a minute. */
    private function stops(
        SelfDisarm $watch,
        Stopped $by,
        float $lean,
        float $throttle,
        float $turn = 30.0,
        ?float $asked = null,
        bool $righting = false,
    ): ?float {
        for ($t = self::DT; $t < 30; $t += self::DT) {
            $stopped = $watch->look(
                self::DT,
                true,
                $lean,
                $turn,
                $asked ?? (Stopped::UnaskedTurn === $by ? 0.0 : $turn),
                $throttle,
                $righting,
            );
            if (null !== $stopped) {
                self::assertSame($by, $stopped);

                return $t;
            }
        }

        return null;
    }
}
