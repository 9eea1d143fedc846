<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\RoadMap;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\Adequacy;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\LogCheck\FlightPlan;
use Ortholex\Core\LogCheck\FlownLog;
use Ortholex\Core\LogCheck\Hindrance;
use Ortholex\Core\RoadMap\Evidence;
use Ortholex\Core\RoadMap\RoadMap;
use Ortholex\Core\RoadMap\TuneReason;
use Ortholex\Core\RoadMap\TuneStep;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\GainTuner;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Tests\core\Filters\KnownShake;
use PHPUnit\Framework\TestCase;

/** Each station is entered by what a flight shows, in the order of the road. */
final class RoadMapTest extends TestCase
{
    public function testWhatIsBrokenComesBeforeEverything(): void
    {
        $map = RoadMap::of($this->plan(Hindrance::Broken), $this->tuned(), $this->evidence($this->tuned()));
        self::assertSame(TuneStep::Sound, $map->at);
        self::assertTrue($map->why->is(TuneReason::Repair));
        self::assertNull($map->card);
        self::assertSame([], $map->stage);
    }

    public function testWhatWasChangedSinceItFlewWellIsTakenBack(): void
    {
        $now = $this->tuned()->with(['gain.roll.p' => 60.0]);
        $flown = [$this->flown($now, Hindrance::Unstable), $this->flown($this->tuned(), null, 'C-0003')];
        $map = RoadMap::of(FlightPlan::of($now, $flown), $now, $this->evidence($now));
        self::assertTrue($map->why->is(TuneReason::TakeBack));
        self::assertSame('C-0003', $map->why->figures['log'] ?? '');
        self::assertSame(['gain.roll.p' => $this->tuned()['gain.roll.p']], $map->stage);
    }

    public function testUntilNoiseIsKnownNothingIsTuned(): void
    {
        $map = RoadMap::of(FlightPlan::of($this->tuned(), []), $this->tuned(), null);
        self::assertSame([TuneStep::Filters, Card::HoverAndClimb], [$map->at, $map->card]);
    }

    public function testWhatIsOnTheCraftIsFlownBeforeItIsJudged(): void
    {
        $map = RoadMap::from($this->tuned()->with(['gain.roll.d' => 5.0]), $this->evidence($this->tuned()));
        self::assertTrue($map->why->is(TuneReason::NotFlown));
        self::assertSame(Card::MixedSticks, $map->card);
        self::assertSame([], $map->stage);
    }

    public function testNoiseOfDComesBeforeP(): void
    {
        $map = RoadMap::from($this->tuned(), $this->evidence($this->tuned(), verdict: TermState::Noise));
        self::assertSame(TuneStep::Filters, $map->at);
        self::assertSame(['d_path.stage.1.cutoff_hz' => 70.0], $map->stage);
        // Without a low-pass to lower, less D.
        $bare = $this->tuned()->with(['d_path.stage.1.kind' => 'off']);
        $map = RoadMap::from($bare, $this->evidence($bare, verdict: TermState::Noise));
        self::assertSame(['gain.roll.d'], array_keys($map->stage));
        self::assertLessThan($bare->number('gain.roll.d'), $map->stage['gain.roll.d']);
    }

    public function testWhatRingsIsDampedAndWhatSwingsIsCalmed(): void
    {
        $set = $this->tuned()->with(['gain.roll.p' => 40.0, 'gain.roll.d' => 1.0]);
        $map = RoadMap::from($set, $this->evidence($set, peak: 1.5));
        self::assertSame(TuneStep::Damping, $map->at);
        self::assertTrue($map->why->is(TuneReason::Rings));
        self::assertLessThan(40.0, $map->stage['gain.roll.p'] ?? 99);
        self::assertGreaterThan(1.0, $map->stage['gain.roll.d'] ?? 0);
        $ofYaw = array_filter(array_keys($map->stage), static fn (string $n): bool => str_contains($n, 'yaw'));
        self::assertSame([], $ofYaw, 'yaw comes later');
        $map = RoadMap::from($set, $this->evidence($set, verdict: TermState::Oscillation));
        self::assertSame(TuneStep::Sound, $map->at);
        // No peak that can be believed: the margin tells.
        $close = $set->with(['gain.roll.p' => 50.0]);
        self::assertTrue(RoadMap::from($close, $this->evidence($close, peak: null))->why->is(TuneReason::MarginSmall));
    }

    public function testWhatIsSluggishIsMadeFirmThenYawThenFeedForwardThenItIsDone(): void
    {
        $set = $this->tuned();
        $slow = $set->with(['gain.roll.p' => 0.5 * $set->number('gain.roll.p'), 'gain.roll.d' => 0.5 * $set->number('gain.roll.d')]);
        $map = RoadMap::from($slow, $this->evidence($slow));
        self::assertSame(TuneStep::Firmness, $map->at);
        self::assertTrue($map->why->is(TuneReason::Sluggish));
        $yaw = $set->with(['gain.yaw.p' => 0.4 * $set->number('gain.yaw.p')]);
        $map = RoadMap::from($yaw, $this->evidence($yaw));
        self::assertSame(TuneStep::Yaw, $map->at);
        self::assertSame([], array_filter(array_keys($map->stage), static fn (string $n): bool => !str_starts_with($n, 'gain.yaw.')));
        $map = RoadMap::from($set, $this->evidence($set, lagMs: 12.0));
        self::assertSame([TuneStep::FeedForward, []], [$map->at, $map->stage]);
        $map = RoadMap::from($set, $this->evidence($set));
        self::assertSame(TuneStep::Done, $map->at);
        self::assertNull($map->card, 'it says when it is done');
        self::assertEqualsWithDelta(25.0, $map->why->figures['motors_ms'] ?? 0, 0.1, 'and what would have to change for more');
    }

    public function testAFlightThatDoesNotTellIsFlownAgain(): void
    {
        $evidence = new Evidence($this->tuned(), [], [], [], [], []);
        $map = RoadMap::from($this->tuned(), $evidence);
        self::assertTrue($map->why->is(TuneReason::NoPlant));
        self::assertSame(Card::MixedSticks, $map->card);
    }

    /** Gains that the tuner itself would leave alone. */
    private function tuned(): SettingSet
    {
        /** @var SettingSet|null $set */
        static $set = null;
        if (null === $set) {
            $set = SettingSet::of([
                'd_path.stage.1.kind' => 'second_order',
                'd_path.stage.1.cutoff_hz' => 100.0,
                'rate_path.stage.1.kind' => 'second_order',
                'rate_path.stage.1.cutoff_hz' => 200.0,
                'motors.loop_rate_hz' => '2000',
            ]);
            foreach (Axis::cases() as $axis) {
                $start = new GainSet(Axis::Yaw === $axis ? 40 : 25, 60, Axis::Yaw === $axis ? 0 : 2, 0);
                for ($n = 0; $n < 6; ++$n) {
                    $best = GainTuner::best($this->plants()[$axis->value], $start, RateFilters::of($set, 2000), Axis::Yaw !== $axis);
                    $start = $best->gains ?? $start;
                }
                foreach (['p' => $start->p, 'i' => $start->i, 'd' => $start->d, 'ff' => 0.0] as $term => $gain) {
                    $set = $set->with(["gain.{$axis->value}.$term" => $gain]);
                }
            }
        }

        return $set;
    }

    /** @return array<string, AxisPlant> */
    private function plants(): array
    {
        return [
            'roll' => AxisPlant::known(600, 0.022, 0.003, 0),
            'pitch' => AxisPlant::known(500, 0.022, 0.003, 0),
            'yaw' => AxisPlant::known(90, 0.025, 0.003, 0),
        ];
    }

    private function evidence(SettingSet $flown, ?TermState $verdict = null, ?float $peak = 1.05, float $lagMs = 1.0): Evidence
    {
        $peaks = null === $peak ? [] : ['roll' => $peak, 'pitch' => 1.05];

        return new Evidence(
            $flown,
            $this->plants(),
            $peaks,
            ['roll' => $verdict ?? TermState::Clean, 'pitch' => TermState::Clean],
            ['roll' => $lagMs],
            [],
        );
    }

    private function plan(?Hindrance $hinders): FlightPlan
    {
        return FlightPlan::of($this->tuned(), [$this->flown($this->tuned(), $hinders)]);
    }

    private function flown(SettingSet $set, ?Hindrance $hinders, string $name = 'C-0004'): FlownLog
    {
        return new FlownLog($set, Adequacy::of(KnownShake::log(1000, 3, [], 1.0, 0.0)), $hinders, Card::MixedSticks, $name);
    }
}
