<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Airframe;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Airframe\AirframeFlaw;
use Ortholex\Core\Airframe\Allocation;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Airframe\MotorPlace;
use Ortholex\Core\Airframe\Mounting;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Airframe\SpinAnswer;
use Ortholex\Core\Airframe\SpinCheck;
use Ortholex\Core\Airframe\SpinCode;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\NoAnswerOnPulses;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Fact\Fact;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** The builder shows; the computation finds. */
final class ShownTest extends TestCase
{
    public function testAllRightAngleMountingsAreFoundFromNoisyPoses(): void
    {
        $dice = new Lcg(5);
        $seen = [];
        foreach ([0, 90, 180, -90] as $roll) {
            foreach ([0, 90, -90] as $pitch) {
                foreach ([0, 90, 180, -90] as $yaw) {
                    $true = Rotation::degrees($roll, $pitch, $yaw);
                    foreach ($seen as $other) {
                        if ($other->angleTo($true) < 1) {
                            continue 2;
                        }
                    }
                    $seen[] = $true;
                    $found = self::shown($true, $dice, 0.03);
                    self::assertTrue($found->snapped, "$roll $pitch $yaw");
                    self::assertLessThan(0.001, $found->rotation->angleTo($true), "$roll $pitch $yaw");
                    self::assertLessThan(12, $found->residualDeg);
                    self::assertLessThan(
                        0.001,
                        Rotation::degrees($found->rollDeg, $found->pitchDeg, $found->yawDeg)->angleTo($true),
                        'the angles name the same rotation',
                    );
                }
            }
        }
        self::assertCount(24, $seen);
    }

    public function testFiveHundredRandomMountingsAreFoundWithinADegree(): void
    {
        $dice = new Lcg(8);
        $free = 0;
        for ($i = 0; $i < 500; ++$i) {
            $true = Rotation::degrees(360 * $dice->next(), 176 * $dice->next(), 360 * $dice->next());
            $found = self::shown($true, $dice, 0.002);
            if ($found->snapped) {
                self::assertEqualsWithDelta($found->residualDeg, $found->rotation->angleTo($true), 1.0);
                continue;
            }
            ++$free;
            self::assertLessThan(1.0, $found->rotation->angleTo($true));
            self::assertLessThan(1.0, Rotation::degrees($found->rollDeg, $found->pitchDeg, $found->yawDeg)->angleTo($true));
        }
        self::assertGreaterThan(400, $free);
    }

    public function testPosesThatCannotBeAreRefusedWithTheReason(): void
    {
        foreach (
            [
                AirframeFlaw::PosesAlike->value => [[0, 0, -1], [0.02, 0, -1], 45.0],
                AirframeFlaw::NotStillInPose->value => [[0, 0, -1.4], [0.7, 0, -0.7], 45.0],
                AirframeFlaw::PosesContradictLift->value => [[0, 0, -1], [0, 1, 0], 45.0],
            ] as $why => [$level, $up, $deg]
        ) {
            try {
                Mounting::fromPoses($level, $up, $deg);
                self::fail("“{$why}” was taken.");
            } catch (AirframeError $e) {
                self::assertSame($why, $e->flaw->code->value);
            }
        }
    }

    public function testAnyPermutationAndAnyReversalsAreFound(): void
    {
        $dice = new Lcg(77);
        foreach ([Airframe::quadX(0.2), Airframe::quadX(0.2, false), Airframe::hexaX(0.3)] as $frame) {
            $n = \count($frame->motors);
            for ($round = 0; $round < 300; ++$round) {
                $order = range(0, $n - 1);
                for ($i = $n - 1; $i > 0; --$i) {
                    $j = $dice->whole(0, $i);
                    [$order[$i], $order[$j]] = [$order[$j], $order[$i]];
                }
                $answers = $wrong = $truth = [];
                foreach ($order as $i => $motor) {
                    $flip = $dice->next() > 0;
                    $place = $frame->motors[$motor]->place;
                    $answers[] = new SpinAnswer($i + 1, $place, $frame->motors[$motor]->spin * ($flip ? -1 : 1));
                    $truth[$i + 1] = $place;
                    if ($flip) {
                        $wrong[] = $place;
                    }
                }
                self::assertFalse(SpinCheck::of($frame, range(1, $n), \array_slice($answers, 1))->isComplete());
                $check = SpinCheck::of($frame, range(1, $n), $answers);
                self::assertSame($truth, $check->drives);
                self::assertEqualsCanonicalizing($wrong, $check->reverse);
                // Mended, a second round finds nothing to do.
                $again = array_map(
                    static fn (SpinAnswer $a): SpinAnswer => new SpinAnswer(
                        $a->pad,
                        $a->place,
                        $a->direction * (\in_array($a->place, $check->reverse, true) ? -1 : 1),
                    ),
                    $answers,
                );
                $proof = SpinCheck::of($frame, range(1, $n), $again);
                self::assertSame([], $proof->reverse);
                self::assertSame(SpinCode::AllRight, $proof->fact($check->drives)->code);
            }
        }
    }

    public function testClashingAnswersAreNamed(): void
    {
        $check = SpinCheck::of(
            Airframe::quadX(0.2),
            [1, 2, 3, 4],
            [new SpinAnswer(1, 'front_left', 1), new SpinAnswer(3, 'front_left', 1), new SpinAnswer(2, 'top', 1)],
        );
        self::assertFalse($check->isComplete());
        self::assertEquals(
            [
                Fact::of(SpinCode::NoMotorThere, pad: 2, place: 'top'),
                Fact::of(SpinCode::PadsShareMotor, pads: ['1', '3'], place: 'front_left'),
            ],
            $check->clashes,
        );
        self::assertEquals(
            Fact::of(SpinCode::StillToShow, places: ['rear_right', 'rear_left', 'front_left']),
            SpinCheck::of(Airframe::quadX(0.2), [1, 2, 3, 4], [new SpinAnswer(1, 'front_right', -1)])->fact([]),
        );
        $cycle = SpinCheck::of(
            Airframe::quadX(0.2),
            [1, 2, 3, 4],
            [
                new SpinAnswer(1, 'front_right', -1),
                new SpinAnswer(2, 'rear_left', 1),
                new SpinAnswer(3, 'front_left', 1),
                new SpinAnswer(4, 'rear_right', 1),
            ],
        );
        self::assertEquals(
            Fact::of(SpinCode::OutputsMovedAndMotorsTurnWrong, outputs: 3, places: ['rear_left'], motors: 1),
            $cycle->fact([1 => 'front_right', 2 => 'rear_right', 3 => 'rear_left', 4 => 'front_left']),
        );
    }

    public function testAllocationReproducesWhatIsCommandedWhileThereIsRoom(): void
    {
        $custom = Airframe::custom(
            new MotorPlace('a', 0.13, 0.09, 1),
            new MotorPlace('b', -0.12, 0.11, -1),
            new MotorPlace('c', -0.1, -0.12, 1),
            new MotorPlace('d', 0.14, -0.1, -1),
            new MotorPlace('e', 0.0, 0.2, -1),
            new MotorPlace('f', 0.01, -0.21, 1),
        );
        $dice = new Lcg(3);
        foreach ([Airframe::quadX(0.2), Airframe::hexaX(0.3), $custom] as $frame) {
            $mixer = Mixer::of($frame);
            $effect = static function (array $out) use ($frame): array {
                $t = [0.0, 0.0, 0.0, 0.0];
                foreach ($frame->motors as $i => $m) {
                    foreach ([-$m->y, $m->x, -0.02 * $m->spin, 1.0] as $k => $e) {
                        $t[$k] += $e * $out[$i];
                    }
                }

                return $t;
            };
            $unit = array_map(static fn (int $axis): array => $effect(array_column($mixer->shares, $axis)), [0, 1, 2]);
            for ($i = 0; $i < 200; ++$i) {
                $c = [10 * $dice->next(), 10 * $dice->next(), 6 * $dice->next()];
                $torque = $effect((new Allocation($mixer, 5, true))->outputs($c[0], $c[1], $c[2], 50));
                foreach ([0, 1, 2] as $axis) {
                    self::assertEqualsWithDelta($c[$axis] * $unit[$axis][$axis], $torque[$axis], 1e-9);
                }
            }
        }
    }

    public function testSaturationGivesWayInOrder(): void
    {
        $mixer = Mixer::of(Airframe::quadX(0.2));
        $dice = new Lcg(4);
        for ($i = 0; $i < 400; ++$i) {
            $c = [160 * $dice->next(), 160 * $dice->next(), 160 * $dice->next(), 100 * ($dice->next() + 0.5)];
            foreach ([true, false] as $air) {
                $out = (new Allocation($mixer, 6, $air))->outputs(...$c);
                self::assertGreaterThanOrEqual(6 - 1e-9, min([100.0, ...$out]));
                self::assertLessThanOrEqual(100 + 1e-9, max([0.0, ...$out]));
            }
        }
        // Air mode at zero throttle raises all to keep the roll; without it the roll gives way and nothing is raised above it.
        $with = (new Allocation($mixer, 5, true))->outputs(20, 0, 0, 0);
        self::assertEqualsWithDelta([5, 5, 45, 45], $with, 1e-6);
        self::assertEqualsWithDelta([5, 5, 5, 5], (new Allocation($mixer, 5, false))->outputs(20, 0, 0, 0), 1e-6);
        // Too much yaw beside roll: yaw is scaled, roll is kept.
        $both = (new Allocation($mixer, 0, true))->outputs(40, 0, 40, 50);
        self::assertEqualsWithDelta(80, ($both[2] + $both[3] - $both[0] - $both[1]) / 2, 1e-6);
        self::assertEqualsWithDelta(10, ($both[0] - $both[1]) / 2, 1e-6);
    }

    public function testFrameTimesAreThoseOfTheProtocols(): void
    {
        foreach (['dshot150' => 248.7, 'dshot300' => 139.3, 'dshot600' => 84.7] as $protocol => $us) {
            self::assertEqualsWithDelta($us, SignalTiming::of(MotorSignal::from($protocol), true)->frameUs, 0.05);
        }
        self::assertSame(
            [8000, 4000, 2000, 250],
            [
                SignalTiming::of(MotorSignal::Dshot600, true)->highestLoopHz(),
                SignalTiming::of(MotorSignal::Dshot300, true)->highestLoopHz(),
                SignalTiming::of(MotorSignal::Dshot150, true)->highestLoopHz(),
                SignalTiming::of(MotorSignal::Pwm, false)->highestLoopHz(),
            ],
        );
        self::assertTrue(SignalTiming::of(MotorSignal::Oneshot125, false)->fits(2000));
        self::assertFalse(SignalTiming::of(MotorSignal::Dshot300, true)->fits(8000));
        $this->expectException(NoAnswerOnPulses::class);
        SignalTiming::of(MotorSignal::Pwm, true);
    }

    private static function shown(Rotation $true, Lcg $dice, float $noiseG): Mounting
    {
        $read = static function (float $up) use ($true, $dice, $noiseG): array {
            $a = deg2rad($up);
            $force = $true->undo([sin($a), 0.0, -cos($a)]);

            return [$force[0] + $noiseG * $dice->normal(), $force[1] + $noiseG * $dice->normal(), $force[2] + $noiseG * $dice->normal()];
        };

        return Mounting::fromPoses($read(0), $read(45), 45);
    }
}
