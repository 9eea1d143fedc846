<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Drive;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\CalibrationStep;
use Ortholex\Core\Drive\EscCalibration;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Drive\MagnetCheck;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\NoAnswerOnPulses;
use Ortholex\Core\Drive\RisingOutput;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Drive\Struggle;
use Ortholex\Core\Drive\SwitchingTrade;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Drive\Tone;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** How long signals take, what the loop has time for, and what low outputs tell of motors. */
final class TimingTest extends TestCase
{
    /**
     * By hand: sixteen bits at the rate of the signal; thirty microseconds to turn round and 21 bits a quarter faster for the answer.
     *
     * @return iterable<string, array{MotorSignal, bool, float, int}> signal, answer, µs, highest loop
     */
    public static function signals(): iterable
    {
        yield '150' => [MotorSignal::Dshot150, false, 106.667, 8000];
        yield '150 with answer' => [MotorSignal::Dshot150, true, 248.667, 2000];
        yield '300' => [MotorSignal::Dshot300, false, 53.333, 8000];
        yield '300 with answer' => [MotorSignal::Dshot300, true, 139.333, 4000];
        yield '600' => [MotorSignal::Dshot600, false, 26.667, 8000];
        yield '600 with answer' => [MotorSignal::Dshot600, true, 84.667, 8000];
        yield 'short pulses' => [MotorSignal::Oneshot125, false, 250.0, 2000];
        yield 'long pulses' => [MotorSignal::Pwm, false, 2000.0, 250];
    }

    #[DataProvider('signals')]
    public function testASignalTakesItsTimeAndBoundsTheLoop(MotorSignal $signal, bool $answer, float $us, int $highest): void
    {
        $timing = SignalTiming::of($signal, $answer);
        self::assertEqualsWithDelta($us, $timing->frameUs, 1e-3);
        self::assertSame($highest, $timing->highestLoopHz());
        self::assertTrue($timing->fits($highest));
        // A twentieth of the period stays free.
        self::assertTrue($timing->fits(0.95e6 / $us - 0.5));
        self::assertFalse($timing->fits(0.95e6 / $us + 0.5));
        self::assertSame($signal->isDigital(), $timing->digital);
    }

    public function testAPulseHasNoAnswer(): void
    {
        foreach ([MotorSignal::Pwm, MotorSignal::Oneshot125] as $signal) {
            try {
                SignalTiming::of($signal, true);
                self::fail('a pulse was answered');
            } catch (NoAnswerOnPulses) {
                self::assertFalse($signal->isDigital());
            }
        }
    }

    public function testTheLoadIsInProportionToTheLoopAndToTheWork(): void
    {
        $set = Catalogue::loam()->defaults(Version::parse('26.06'))->with(['recorder.rate_hz' => '0']);
        $at = static fn (string $hz): float => LoopLoad::of($set->with(['motors.loop_rate_hz' => $hz]), 4, 'F4')->percent;
        self::assertEqualsWithDelta(2 * $at('1000'), $at('2000'), 1e-9);
        self::assertEqualsWithDelta(4 * $at('1000'), $at('4000'), 1e-9);
        // An unknown processor is taken for the slowest.
        self::assertSame($at('2000'), LoopLoad::of($set->with(['motors.loop_rate_hz' => '2000']), 4, 'Z1')->percent);
        $less = LoopLoad::of($set->with(['motors.loop_rate_hz' => '2000']), 4, 'F4', ['gps', 'overlay', 'sbus', 'ppm'])->percent;
        self::assertEqualsWithDelta((4.0 + 3.0 + 1.5 + 1.0) * 1e-6 * 2000 * 100, $at('2000') - $less, 1e-9);
    }

    public function testRippleFallsWithTheSquareOfSwitchingAndItsLossesRiseWithIt(): void
    {
        foreach ([12.0, 16.0, 24.0] as $volts) {
            $slow = SwitchingTrade::of(24, $volts, 4.0, 0.35, 350);
            $fast = SwitchingTrade::of(48, $volts, 4.0, 0.35, 350);
            self::assertEqualsWithDelta($slow->rippleW / 4, $fast->rippleW, 1e-9);
            self::assertEqualsWithDelta(2 * $slow->switchingW, $fast->switchingW, 1e-9);
            self::assertGreaterThan($fast->lowAuthority, $slow->lowAuthority);
            self::assertSame(0.0, $slow->flightTimePct($slow, 60.0));
            self::assertSame($fast->flightTimePct($slow, 60.0) > 0, $slow->flightTimePct($fast, 60.0) < 0);
        }
        self::assertSame(0.0, SwitchingTrade::of(200, 16.0, 4.0, 0.35, 500)->lowAuthority, 'all of the low duty is dead time');
    }

    public function testTheIdleIsTheLargestSteadyOutputPlusItsMargin(): void
    {
        $dice = new Lcg(6);
        for ($round = 0; $round < 100; ++$round) {
            $begin = $rises = [];
            foreach (['front_right', 'rear_right', 'rear_left', 'front_left'] as $place) {
                $begin[$place] = $dice->whole(6, 8) / 2;
                $rises[$place] = self::rise($begin[$place], $dice);
            }
            $found = RisingOutput::of($rises);
            self::assertEquals($begin, $found->steadyAt);
            self::assertSame([], $found->weak);
            self::assertSame(round(max($begin) + 1.0, 1), $found->idlePct);
            self::assertSame(['motors.idle_pct' => $found->idlePct], $found->idleFor(SettingSet::of(['motors.idle_pct' => 5.5])));
            self::assertSame(
                ['motors.idle_permille' => (int) round(10 * (float) $found->idlePct)],
                $found->idleFor(SettingSet::of(['motors.idle_permille' => 55])),
            );
        }
    }

    public function testOneThatStartsLateIsWeakAndNoIdleIsFound(): void
    {
        $dice = new Lcg(7);
        $rises = [];
        foreach (['a' => 3.0, 'b' => 3.5, 'c' => 5.5, 'd' => 3.0] as $place => $begin) {
            $rises[$place] = self::rise($begin, $dice);
        }
        $found = RisingOutput::of($rises);
        self::assertSame(['c'], array_keys($found->weak));
        self::assertSame(Struggle::SteadyLate, $found->weak['c']->code);
        self::assertNull($found->idlePct, 'an idle for a weak motor would hide it');
        self::assertSame([], $found->idleFor(SettingSet::of(['motors.idle_pct' => 5.5])));
    }

    public function testNothingReadIsNothingFound(): void
    {
        $found = RisingOutput::of([]);
        self::assertNull($found->idlePct);
        self::assertSame([], $found->weak);
        $still = RisingOutput::of(['a' => [['pct' => 3.0, 'rpm' => []], ['pct' => 4.0, 'rpm' => []]]]);
        self::assertSame(Struggle::NeverSteady, $still->weak['a']->code);
    }

    public function testMagnetsAreCountedFromTheShake(): void
    {
        $dice = new Lcg(8);
        foreach ([10, 12, 14, 24, 28] as $magnets) {
            foreach ([3200.0, 8000.0] as $rate) {
                $rpm = 4200.0;
                $gyro = [];
                for ($i = 0; $i < 4096; ++$i) {
                    $gyro[] = 2 * sin((2 * \M_PI * $rpm * $i) / 60 / $rate) + 0.6 * $dice->normal();
                }
                $check = MagnetCheck::of($gyro, $rate, ($rpm * $magnets) / 2);
                self::assertNotNull($check);
                self::assertSame($magnets, $check->likely);
                self::assertEqualsWithDelta($rpm / 60, $check->shakesHz, 0.5);
                self::assertSame(1.0, $check->factor($magnets));
                self::assertEqualsWithDelta(($magnets + 2) / $magnets, $check->factor($magnets + 2), 1e-12);
            }
        }
        self::assertNull(MagnetCheck::of(array_fill(0, 1000, 1.0), 3200, 20000), 'too short');
        self::assertNull(MagnetCheck::of(array_fill(0, 4096, 0.0), 3200, 50), 'it does not turn');
    }

    public function testTeachingGoesStepByStepAndNeverSkipsOne(): void
    {
        $at = static fn (bool $pack, ?TeachStep $held, int $up = 0, int $down = 0): CalibrationStep => EscCalibration::at(
            MotorSignal::Pwm,
            true,
            $pack,
            $held,
            [...array_fill(0, $up, Tone::TwoRising), ...array_fill(0, $down, Tone::ThreeFalling)],
            4,
        )->step;
        self::assertSame(CalibrationStep::PackOff, $at(true, null), 'full output with the pack on would turn every motor');
        self::assertSame(CalibrationStep::Full, $at(false, null));
        self::assertSame(CalibrationStep::PackOn, $at(false, TeachStep::Full));
        self::assertSame(CalibrationStep::Zero, $at(true, TeachStep::Full, 4));
        self::assertSame(CalibrationStep::End, $at(true, TeachStep::Zero, 4, 4));
        self::assertTrue(EscCalibration::isDone(array_fill(0, 4, Tone::ThreeFalling), 4));
        self::assertFalse(EscCalibration::isDone(array_fill(0, 3, Tone::ThreeFalling), 4));
        foreach ([MotorSignal::Dshot150, MotorSignal::Dshot300, MotorSignal::Dshot600] as $signal) {
            self::assertSame(CalibrationStep::NotNeeded, EscCalibration::at($signal, true, true, null, [], 4)->step);
        }
    }

    /** @return list<array{pct: float, rpm: list<float>}> turning evenly from an output on, unevenly below it */
    private static function rise(float $begin, Lcg $dice): array
    {
        $steps = [];
        for ($pct = 2.0; $pct <= 7.0; $pct += 0.5) {
            $rpm = [];
            for ($i = 0; $i < 60; ++$i) {
                $rpm[] = 320 * $pct * (1 + ($pct >= $begin ? 0.02 : 0.6) * $dice->next());
            }
            $steps[] = ['pct' => $pct, 'rpm' => $rpm];
        }

        return $steps;
    }
}
