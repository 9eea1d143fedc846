<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Flight;

use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\OutputTop;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Incident\Incidents;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Core\Signal\Welch;
use Ortholex\Core\Step\Confidence\OutputEnds;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\GainTuner;
use Ortholex\Core\Tuning\LoopPrediction;
use Ortholex\Core\World\FlightEnd;
use Ortholex\Demo\Scenario;
use Ortholex\Tests\Cases;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** A wrong setting flies wrong, a better one flies better, and the log shows it, for the reason that physics gives. */
final class FlightTest extends TestCase
{
    public function testTheSameSeedFliesTheSameFlightAndEveryTraceIsCanonical(): void
    {
        $a = $this->fly([], Card::MixedSticks, 6);
        $b = $this->fly([], Card::MixedSticks, 6);
        self::assertSame($a->packed(), $b->packed());
        self::assertNotSame($a->packed(), $this->fly([], Card::MixedSticks, 6, seed: 2)->packed());
        self::assertEqualsWithDelta(2000, $a->clock->rateHz, 1e-6);
        self::assertSame([], $a->leftOut);
        self::assertCount(40, [...$a->names(), 'time_s']);
    }

    #[Group('slow')]
    public function testDampingTakesTheOvershootAway(): void
    {
        $stiff = FlightAnalysis::of($this->fly(['gain.roll.p' => 33.0, 'gain.roll.d' => 1.7], Card::MixedSticks, 30));
        $damped = FlightAnalysis::of($this->fly(['gain.roll.p' => 29.5, 'gain.roll.d' => 2.9], Card::MixedSticks, 30));
        $peak = static fn (FlightAnalysis $a): float => $a->axes['roll']->step->numbers->peak ?? 0.0;
        self::assertGreaterThan(1.25, $peak($stiff));
        self::assertLessThan(1.12, $peak($damped));
    }

    /** The prediction from one flight is held against another flight, flown with the gains it predicted for. */
    #[Group('slow')]
    public function testWhatIsPredictedIsWhatIsThenFlown(): void
    {
        $flown = ['gain.roll.p' => 33.0, 'gain.roll.d' => 1.7];
        $analysis = FlightAnalysis::of($this->fly($flown, Card::MixedSticks, 30));
        $set = $this->settings($flown);
        $filters = RateFilters::of($set, 2000, $analysis->rotorHz);
        $measured = $analysis->axes['roll']->step?->numbers->peak;
        self::assertNotNull($measured);
        $model = LoopPrediction::of($analysis->plants['roll'], GainSet::ofAxis($set, Axis::Roll), $filters);
        self::assertEqualsWithDelta($measured, $model->curve->numbers()->peak, 0.06, 'the model gives back the flight it was made from');
        foreach ([[25.0, 1.5], [29.5, 2.9], [36.0, 3.4]] as [$p, $d]) {
            $predicted = LoopPrediction::of($analysis->plants['roll'], new GainSet($p, 70, $d, 0), $filters)->curve->numbers();
            $next = FlightAnalysis::of($this->fly(['gain.roll.p' => $p, 'gain.roll.d' => $d], Card::MixedSticks, 30, seed: 3))->axes['roll']
                ->step?->numbers;
            self::assertNotNull($next);
            self::assertEqualsWithDelta($next->peak, $predicted->peak, 0.06, "P $p, D $d");
            self::assertEqualsWithDelta($next->delayMs, $predicted->delayMs, 1.0, "P $p, D $d");
        }
        $advice = GainTuner::advise($analysis->plants['roll'], GainSet::ofAxis($set, Axis::Roll), $filters, $measured);
        self::assertNotNull($advice);
        self::assertGreaterThan(1.7 / 33, $advice->gains->d / $advice->gains->p, 'more D for its P');
        self::assertLessThan(1.1, $advice->prediction->curve->numbers()->peak);
        self::assertNull(GainTuner::advise($analysis->plants['roll'], $advice->gains, $filters, 1.07), 'what is well needs no advice');
    }

    #[Group('slow')]
    public function testTheIdentifiedAxisHasTheMotorsLag(): void
    {
        $plants = FlightAnalysis::of($this->fly([], Card::MixedSticks, 30))->plants;
        self::assertEqualsWithDelta(Scenario::craft()['curlew']->physics->motorLagS, $plants['roll']->lagS, 0.004);
        self::assertEqualsWithDelta(Scenario::craft()['curlew']->physics->motorLagS, $plants['pitch']->lagS, 0.004);
        self::assertGreaterThan($plants['yaw']->effectiveness * 3, $plants['roll']->effectiveness);
    }

    #[Group('slow')]
    public function testFiltersBuyQuietWithDelay(): void
    {
        $open = FlightAnalysis::of(
            $this->fly(['rate_path.stage.1.cutoff_hz' => 400.0, 'notch.motor.orders' => ''], Card::HoverAndClimb, 16),
        )->axes['roll'];
        $shut = FlightAnalysis::of(
            $this->fly(['rate_path.stage.1.cutoff_hz' => 100.0, 'notch.motor.orders' => ''], Card::HoverAndClimb, 16),
        )->axes['roll'];
        self::assertGreaterThan($shut->filtered?->rmsDps, $open->filtered?->rmsDps);
        self::assertGreaterThan($open->filterDelayMs, $shut->filterDelayMs);
        $notched = FlightAnalysis::of(
            $this->fly(['rate_path.stage.1.cutoff_hz' => 400.0, 'notch.motor.orders' => '1,2'], Card::HoverAndClimb, 16),
        )->axes['roll'];
        self::assertLessThan($open->filtered?->rmsDps, $notched->filtered?->rmsDps);
    }

    public function testTrackingNotchesSettleOnThePeak(): void
    {
        $log = $this->fly(['notch.tracking.peaks' => 1, 'notch.motor.orders' => ''], Card::Cruise, 10);
        $rotor = Statistics::median(\array_slice($log->trace('rpm_front_left'), 8000, 8000)) / 60;
        $notch = Statistics::median(\array_slice($log->trace('tracking_notch_1_hz'), 8000, 8000));
        self::assertEqualsWithDelta($rotor, $notch, 40.0);
    }

    public function testALooseArmRingsWhereItRings(): void
    {
        $whole = $this->fly([], Card::HoverAndClimb, 12);
        $loose = $this->fly([], Card::HoverAndClimb, 12, ['loose_arm']);
        $near = static fn (FlightLog $l): float => Welch::withSegment(2048, 2000)
            ->density($l->runs('rate_measured_pitch_dps'))
            ->power(180, 195);
        self::assertGreaterThan(5 * $near($whole), $near($loose));
    }

    #[Group('slow')]
    public function testABentPropShakesAtItsRotorSpeed(): void
    {
        $rms = fn (FlightLog $l): float => FlightAnalysis::of($l)->axes['roll']->measured->rmsDps ?? 0.0;
        self::assertGreaterThan(1.5 * $rms($this->fly([], Card::Cruise, 10)), $rms($this->fly([], Card::Cruise, 10, ['bent_prop'])));
    }

    public function testSwappedPadsFlipTheCraft(): void
    {
        $log = $this->fly(['pad.1.drives' => 'front_right', 'pad.2.drives' => 'rear_right'], Card::Cruise, 4);
        self::assertGreaterThan(500, max(array_map('abs', $log->trace('rate_measured_pitch_dps'))));
        self::assertLessThan(150, max(array_map('abs', $this->fly([], Card::Cruise, 4)->trace('rate_measured_pitch_dps'))));
    }

    /** A motor that turns against its prop: the craft is lost within seconds of take-off, and the log ends there. */
    public function testABackwardMotorFlipsTheCraft(): void
    {
        foreach (['front_right', 'rear_right', 'rear_left', 'front_left'] as $place) {
            $log = $this->fly([], Card::Cruise, 12, ["backward:$place"]);
            self::assertLessThan(6.0, $log->clock->durationS(), $place);
            self::assertGreaterThan(
                700,
                max(array_map('abs', [...$log->trace('rate_measured_roll_dps'), ...$log->trace('rate_measured_pitch_dps')])),
            );
        }
        self::assertGreaterThan(11.9, $this->fly([], Card::Cruise, 12)->clock->durationS());
    }

    public function testAWrongMountingFlipsTheCraft(): void
    {
        self::assertGreaterThan(
            500,
            max(array_map('abs', $this->fly(['mounting.yaw_deg' => 180.0], Card::Cruise, 4)->trace('rate_measured_roll_dps'))),
        );
    }

    #[Group('slow')]
    public function testThePackSagsWhileItGives(): void
    {
        $log = $this->fly([], Card::HoverAndClimb, 40);
        $volts = $log->trace('battery_v');
        self::assertLessThan($volts[0] - 1.0, min($volts));
        self::assertGreaterThan(80.0, max($log->trace('current_a')));
        self::assertGreaterThan(99.0, max($log->trace('throttle_pct')));
    }

    public function testNotchesAboveWhatTheLoopCanHoldLeaveTheRateAlone(): void
    {
        // At full throttle the second harmonic of these motors lies beyond 0.45 of a loop of 2 kHz.
        $log = $this->fly(['motors.loop_rate_hz' => '2000', 'notch.motor.orders' => '1,2,3'], Card::MixedSticks, 16, seed: 1001);
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $measured = max(array_map('abs', $log->trace("rate_measured_{$axis}_dps")));
            $filtered = max(array_map('abs', $log->trace("rate_filtered_{$axis}_dps")));
            self::assertLessThan(1.15 * $measured, $filtered, "$axis: a filter takes away, it does not add");
        }
    }

    #[Group('slow')]
    public function testALowerTopOutputIsFlownAndFoundInTheLog(): void
    {
        $log = $this->fly(['motors.top_pct' => 80.0], Card::FlipSet, 12);
        self::assertSame(80.0, OutputTop::ofLog($log));
        self::assertGreaterThan(0.003, OutputEnds::of($log)->full ?? 0.0, 'flips ask for all there is');
        self::assertSame(100.0, OutputTop::ofLog($this->fly([], Card::HoverAndClimb, 12)));
    }

    public function testTheClimbCoversEveryThrottle(): void
    {
        $bins = array_fill(0, 50, 0);
        foreach ($this->fly([], Card::HoverAndClimb, 40)->trace('throttle_pct') as $v) {
            ++$bins[(int) min(49, $v / 2)];
        }
        // Three windows of a quarter of a second, half overlapping, need half a second at 2 kHz; neighbours share some.
        self::assertGreaterThan(700, min(\array_slice($bins, 7, 42)));
    }

    #[Group('slow')]
    public function testCleanFlightsOfEveryCardHaveNoIncident(): void
    {
        foreach (Card::gathering() as $n => $card) {
            foreach (['curlew', 'bittern'] as $k => $craft) {
                if (!Cases::takes($n + $k, 2)) {
                    continue;
                }
                self::assertSame([], Incidents::of($this->fly([], $card, 22, seed: 1001 + $n, craft: $craft)), "$craft, $card->name");
            }
        }
    }

    #[Group('slow')]
    public function testALostMotorIsNamedOnEveryCard(): void
    {
        foreach (Card::gathering() as $n => $card) {
            foreach (['curlew', 'bittern'] as $k => $craft) {
                if (!Cases::takes($n + $k, 2)) {
                    continue;
                }
                $found = Incidents::of($this->fly([], $card, 22, ['lost_sync'], 2 + $n, $craft));
                self::assertNotEmpty($found, "$craft, $card->name");
                self::assertSame('rear_left', $found[0]->place, "$craft, $card->name");
                self::assertGreaterThan(0.3, $found[0]->margin, "$craft, $card->name");
                self::assertEqualsWithDelta(
                    0.62 * 22,
                    $found[0]->atS,
                    0.12,
                    "$craft, $card->name: the bench lets it go at 62 % of a flight",
                );
                self::assertCount(1, $found, "$craft, $card->name: what follows belongs to the loss");
                self::assertLessThan(0, $found[0]->rotation[0], "$craft, $card->name: it rolls left");
                self::assertGreaterThan(0, $found[0]->rotation[1], "$craft, $card->name: and lifts its nose");
            }
        }
    }

    public function testTheHexaFliesToo(): void
    {
        $log = $this->fly([], Card::MixedSticks, 12, craft: 'bittern');
        self::assertCount(6, $log->places());
        self::assertLessThan(700, max(array_map('abs', $log->trace('rate_measured_roll_dps'))));
    }

    public function testACancelledFlightStops(): void
    {
        $craft = Scenario::craft()['curlew'];
        $stream = fopen('php://memory', 'w+');
        self::assertIsResource($stream);
        $simulator = new FlightSimulator($craft->physics);
        self::assertSame(
            FlightEnd::Stopped,
            $simulator->fly(
                FlightCard::fly(Card::Cruise, 10, 150, 0.4, 1),
                $this->settings([]),
                10,
                1,
                [],
                new CsvRecorder($stream),
                static fn (float $share): bool => $share < 0.3,
            ),
        );
    }

    /** The firmware mixes for the frame its settings describe: the same arms by another name fly alike, a wrong layout does not. */
    public function testTheFrameThatIsSetIsTheOneThatIsMixedFor(): void
    {
        $custom = ['frame.layout' => 'custom'];
        foreach (Scenario::craft()['curlew']->physics->frame->motors as $motor) {
            $custom["motor_place.$motor->place.forward_mm"] = round(1000 * $motor->x);
            $custom["motor_place.$motor->place.right_mm"] = round(1000 * $motor->y);
        }
        $plain = $this->fly([], Card::MixedSticks, 6)->trace('rate_measured_roll_dps');
        $same = $this->fly($custom, Card::MixedSticks, 6)->trace('rate_measured_roll_dps');
        self::assertEqualsWithDelta($plain[3000], $same[3000], 3.0);
        // A plus frame's outputs have other names: no pad drives its front motor, so nothing holds this craft up.
        $wrong = $this->fly(['frame.layout' => 'quad_plus'], Card::Cruise, 4);
        self::assertSame(0.0, array_sum($wrong->trace('output_front_right_pct')));
        $out = $this->fly(['props.direction' => 'props_out'], Card::Cruise, 8);
        self::assertGreaterThan(
            200,
            max(array_map('abs', $out->trace('rate_measured_yaw_dps'))),
            'yaw runs away when the board believes the props turn the other way',
        );
    }

    /**
     * @param array<string, float|int|bool|string> $changed
     * @param list<string>                         $faults
     */
    private function fly(array $changed, Card $card, int $seconds, array $faults = [], int $seed = 1, string $craft = 'curlew'): FlightLog
    {
        $demo = Scenario::craft()[$craft];
        $simulator = new FlightSimulator($demo->physics);
        $path = (string) tempnam(sys_get_temp_dir(), 'fly');
        $stream = fopen($path, 'w');
        self::assertIsResource($stream);
        $simulator->fly(
            FlightCard::fly($card, $seconds, 150, $simulator->hoverThrottle(), $seed),
            $this->settings($changed, $craft),
            $seconds,
            $seed + 7,
            $faults,
            new CsvRecorder($stream),
            static fn (float $share): bool => true,
        );
        fclose($stream);
        $log = LogReader::readFile($path);
        unlink($path);

        return $log;
    }

    /**
     * @param array<string, float|int|bool|string> $changed
     */
    private function settings(array $changed, string $craft = 'curlew'): SettingSet
    {
        return Catalogue::loam()
            ->defaults(Version::parse(Catalogue::CURRENT))
            ->with(Scenario::craft()[$craft]->settings)
            ->with($changed);
    }
}
