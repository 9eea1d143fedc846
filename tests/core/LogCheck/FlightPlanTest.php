<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\LogCheck;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\LogCheck\Adequacy;
use Ortholex\Core\LogCheck\AdequacyCode;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\LogCheck\FlightPlan;
use Ortholex\Core\LogCheck\FlownLog;
use Ortholex\Core\LogCheck\Hindrance;
use Ortholex\Core\LogCheck\PlanReason;
use Ortholex\Core\LogCheck\SinceGood;
use PHPUnit\Framework\TestCase;

final class FlightPlanTest extends TestCase
{
    private const CRAFT = [
        'gain.roll.p' => 24.0,
        'gain.roll.ff' => 1.2,
        'gain.roll.added_d' => 0.0,
        'gain.pitch.p' => 27.0,
        'gain.pitch.ff' => 0.0,
        'gain.pitch.added_d' => 0.8,
        'rate_path.stage.1.cutoff_hz' => 180.0,
        'notch.motor.orders' => '1,2',
        'feel.roll.quarter_dps' => 90.0,
        'feel.roll.half_dps' => 230.0,
        'feel.roll.full_dps' => 600.0,
        'feel.pitch.quarter_dps' => 100.0,
        'feel.pitch.half_dps' => 200.0,
        'feel.pitch.full_dps' => 400.0,
    ];

    public function testNoiseComesBeforeResponseAndFlipsLast(): void
    {
        self::assertSame(Card::HoverAndClimb, FlightPlan::of(SettingSet::of(self::CRAFT), [])->card);
        $noise = self::flown(self::CRAFT, AdequacyCode::NoiseAgainstThrottle);
        $response = self::flown(self::CRAFT, AdequacyCode::StepResponse, AdequacyCode::Lag);
        self::assertSame(Card::HoverAndClimb, FlightPlan::of(SettingSet::of(self::CRAFT), [$response])->card);
        self::assertSame(Card::MixedSticks, FlightPlan::of(SettingSet::of(self::CRAFT), [$noise])->card);
        self::assertSame(Card::FlipSet, FlightPlan::of(SettingSet::of(self::CRAFT), [$response, $noise])->card);
    }

    public function testAChangedFilterOrGainMakesOldFlightsOld(): void
    {
        $all = self::flown(self::CRAFT, AdequacyCode::NoiseAgainstThrottle, AdequacyCode::StepResponse);
        self::assertSame(
            Card::HoverAndClimb,
            FlightPlan::of(SettingSet::of(['rate_path.stage.1.cutoff_hz' => 120.0] + self::CRAFT), [$all])->card,
        );
        self::assertSame(Card::HoverAndClimb, FlightPlan::of(SettingSet::of(['notch.motor.orders' => '1'] + self::CRAFT), [$all])->card);
        self::assertSame(Card::MixedSticks, FlightPlan::of(SettingSet::of(['gain.roll.p' => 26.0] + self::CRAFT), [$all])->card);
        self::assertSame(
            Card::FlipSet,
            FlightPlan::of(SettingSet::of(['feel.roll.full_dps' => 500.0] + self::CRAFT), [$all])->card,
            'another feel is not another craft',
        );
        self::assertSame(
            Card::FlipSet,
            FlightPlan::of(SettingSet::of(['gain.roll.p' => 24] + self::CRAFT), [$all])->card,
            'a whole number is the same number',
        );
        self::assertSame(
            Card::HoverAndClimb,
            FlightPlan::of(SettingSet::of(self::CRAFT), [self::flown([], AdequacyCode::NoiseAgainstThrottle, AdequacyCode::StepResponse)])
                ->card,
            'who knows what flew',
        );
    }

    public function testWhatIsBrokenOrSwingsComesBeforeAnyCard(): void
    {
        $known = self::flown(self::CRAFT, AdequacyCode::NoiseAgainstThrottle, AdequacyCode::StepResponse);
        $with = static fn (?Hindrance $h, ?Card $card = null): FlownLog => new FlownLog($known->settings, $known->adequacy, $h, $card);
        $plan = static fn (FlownLog ...$flown): FlightPlan => FlightPlan::of(SettingSet::of(self::CRAFT), array_values($flown));
        self::assertNull($plan($with(Hindrance::Broken))->card);
        self::assertSame(PlanReason::RepairFirst, $plan($with(Hindrance::Broken), $known)->why);
        self::assertSame(Card::FlipSet, $plan($known, $with(Hindrance::Broken))->card, 'flown since, and sound');
        self::assertSame(PlanReason::SettingsFirst, $plan($with(Hindrance::Unstable))->why);
        $changed = FlightPlan::of(SettingSet::of(['gain.roll.p' => 26.0] + self::CRAFT), [$with(Hindrance::Unstable)]);
        self::assertSame(Card::MixedSticks, $changed->card, 'changed since: fly it');
        self::assertSame(PlanReason::NothingMore, $plan($with(null, Card::FlipSet))->why);
        self::assertNull($plan($with(null, Card::FlipSet))->card);
    }

    public function testWhatWasChangedSinceItFlewWellIsTakenBackFirst(): void
    {
        $known = self::flown(self::CRAFT, AdequacyCode::StepResponse);
        $slowed = ['rate_path.stage.1.cutoff_hz' => 60.0, 'feel.roll.full_dps' => 500.0] + self::CRAFT;
        $swings = new FlownLog(SettingSet::of($slowed), $known->adequacy, Hindrance::Unstable, name: 'C-0009');
        $good = new FlownLog($known->settings, $known->adequacy, name: 'C-0007');
        $worse = new FlownLog(SettingSet::of(['gain.roll.p' => 40.0] + self::CRAFT), $known->adequacy, Hindrance::Broken, name: 'C-0008');
        $plan = FlightPlan::of(SettingSet::of($slowed), [$swings, $worse, $good]);
        self::assertSame(PlanReason::TakeBackFirst, $plan->why);
        self::assertSame('C-0007', $plan->since?->good->name, 'not the one that broke');
        self::assertSame(['rate_path.stage.1.cutoff_hz' => [180.0, 60.0]], $plan->since->changed, 'a feel makes no loop');
        self::assertNull(SinceGood::of($good, [$good]), 'it flew well itself');
        self::assertNull(SinceGood::of($swings, [$worse]), 'nothing flew well before');
        $same = new FlownLog($known->settings, $known->adequacy, Hindrance::Unstable);
        self::assertNull(SinceGood::of($same, [$good]), 'nothing was changed: it is something else');
        self::assertSame(PlanReason::SettingsFirst, FlightPlan::of(SettingSet::of(self::CRAFT), [$same, $good])->why);
    }

    public function testResponseIsFlownWithPAndDAloneAndASafeFeel(): void
    {
        $change = FlightPlan::of(SettingSet::of(self::CRAFT), [self::flown(self::CRAFT, AdequacyCode::NoiseAgainstThrottle)])->change;
        self::assertSame(0.0, $change['gain.roll.ff']);
        self::assertSame(0.0, $change['gain.pitch.added_d']);
        self::assertArrayNotHasKey('gain.pitch.ff', $change, 'it is off');
        self::assertArrayNotHasKey('feel.pitch.full_dps', $change, 'it suits');
        self::assertArrayNotHasKey('feel.yaw.full_dps', $change, 'the craft has none');
        $feel = Feel::of($change['feel.roll.quarter_dps'], $change['feel.roll.half_dps'], $change['feel.roll.full_dps']);
        self::assertLessThanOrEqual(450, $feel->rate(1.0));
        self::assertGreaterThan(Feel::of(90, 230, 600)->rate(0.03), $feel->rate(0.03), 'stronger around centre');
        self::assertEqualsWithDelta(400 * 0.37, $feel->rate(0.37), 1e-9, 'and straight');
        self::assertSame([], FlightPlan::forResponse(SettingSet::of($change + self::CRAFT)), 'done once, nothing is left to do');
        // A feel that cannot be is replaced.
        self::assertArrayHasKey(
            'feel.roll.half_dps',
            FlightPlan::forResponse(
                SettingSet::of(['feel.roll.quarter_dps' => 100, 'feel.roll.half_dps' => 10, 'feel.roll.full_dps' => 400]),
            ),
        );
    }

    /** @param array<string, float|int|bool|string> $settings */
    private static function flown(array $settings, AdequacyCode ...$can): FlownLog
    {
        return new FlownLog(
            SettingSet::of($settings),
            Adequacy::fromArray(
                Stored::of([
                    'throttle_share' => [],
                    'motion_dps' => ['roll' => 0.0, 'pitch' => 0.0, 'yaw' => 0.0],
                    'duration_s' => 40.0,
                    'can' => array_map(static fn (AdequacyCode $c): array => Fact::of($c)->toArray(), $can),
                    'cannot' => [],
                ]),
            ),
        );
    }
}
