<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Drive;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\CalibrationCode;
use Ortholex\Core\Drive\CalibrationStep;
use Ortholex\Core\Drive\EscCalibration;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Drive\MagnetCheck;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\RisingOutput;
use Ortholex\Core\Drive\Struggle;
use Ortholex\Core\Drive\SwitchingTrade;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Drive\Tone;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DriveTest extends TestCase
{
    /** Any pole count from 6 to 28 is told from the shaft's shake, whatever was set. */
    public function testTheShakeTellsThePoleCount(): void
    {
        mt_srand(7);
        for ($magnets = 6; $magnets <= 28; $magnets += 2) {
            foreach ([1500.0, 4200.0, 9000.0] as $rpm) {
                $gyro = [];
                for ($i = 0; $i < 2048; ++$i) {
                    $gyro[] =
                        1.8 * sin((((2 * \M_PI * $rpm) / 60) * $i) / 3200) +
                        0.6 * sin((((4 * \M_PI * $rpm) / 60) * $i) / 3200 + 1) +
                        0.6 * (mt_rand() / mt_getrandmax() - 0.5);
                }
                $check = MagnetCheck::of($gyro, 3200, ($rpm * $magnets) / 2);
                self::assertNotNull($check);
                self::assertEqualsWithDelta($rpm / 60, $check->shakesHz, 1.0, "$magnets magnets at $rpm rpm");
                // A bin is 1.56 Hz wide: at 25 turns a second it cannot part 26 poles from 28.
                if ($rpm >= 4200 || $magnets <= 14) {
                    self::assertSame($magnets, $check->likely, "$magnets magnets at $rpm rpm");
                    self::assertEqualsWithDelta(14 / $magnets, $check->factor(14), 1e-9);
                }
            }
        }
    }

    public function testWithoutAShakeItDoesNotTell(): void
    {
        mt_srand(3);
        $noise = array_map(static fn (int $i): float => mt_rand() / mt_getrandmax() - 0.5, range(0, 2047));
        self::assertNull(MagnetCheck::of($noise, 3200, 30000.0));
        self::assertNull(MagnetCheck::of([1.0, 2.0], 3200, 30000.0));
        self::assertNull(MagnetCheck::of($noise, 3200, 0.0));
    }

    public function testTheIdleOutputIsTheLargestSteadyOnePlusAMargin(): void
    {
        $rising = RisingOutput::of(['a' => self::motor(3.0), 'b' => self::motor(3.5), 'c' => self::motor(4.0), 'd' => self::motor(3.5)]);
        self::assertSame(['a' => 3.0, 'b' => 3.5, 'c' => 4.0, 'd' => 3.5], $rising->steadyAt);
        self::assertSame(5.0, $rising->idlePct);
        self::assertSame(['motors.idle_pct' => 5.0], $rising->idleFor(SettingSet::of(['motors.idle_pct' => 5.5])));
        self::assertSame(
            ['motors.idle_permille' => 50],
            $rising->idleFor(SettingSet::of(['motors.idle_permille' => 55])),
            'an older Loam counts in microseconds',
        );
        self::assertSame([], $rising->weak);
    }

    public function testAMotorThatNeedsMoreOrStallsIsNamed(): void
    {
        $late = RisingOutput::of(['a' => self::motor(3.0), 'b' => self::motor(5.5), 'c' => self::motor(3.0), 'd' => self::motor(3.5)]);
        self::assertSame(['b'], array_keys($late->weak));
        self::assertEquals(Fact::of(Struggle::SteadyLate, pct: 5.5, others_pct: 3.0), $late->weak['b']);
        $never = RisingOutput::of(['a' => self::motor(3.0), 'b' => self::motor(99.0), 'c' => self::motor(3.0), 'd' => self::motor(3.5)]);
        self::assertEquals(Fact::of(Struggle::NeverSteadyOthersDid, others_pct: 3.0), $never->weak['b']);
        $stalling = self::motor(3.0);
        foreach ($stalling[5]['rpm'] as $i => $rpm) {
            $stalling[5]['rpm'][$i] = 0 === $i % 3 ? 0.0 : $rpm;
        }
        self::assertSame(
            ['c'],
            array_keys(
                RisingOutput::of(['a' => self::motor(3.0), 'b' => self::motor(3.0), 'c' => $stalling, 'd' => self::motor(3.0)])->weak,
            ),
        );
        $all = RisingOutput::of(['a' => self::motor(99.0), 'b' => self::motor(99.0)]);
        self::assertNull($all->idlePct);
        self::assertSame([], $all->idleFor(SettingSet::of(['motors.idle_pct' => 5.5])));
        self::assertEquals(Fact::of(Struggle::NeverSteady), $all->weak['a']);
    }

    public function testTheSwapTellsMotorFromEsc(): void
    {
        $good = self::motor(3.0);
        $bad = self::motor(5.5);
        self::assertEquals(
            Fact::of(Struggle::WentWithMotor, place: 'b'),
            self::afterSwap(['a' => $good, 'b' => $bad, 'c' => $good, 'd' => $good]),
        );
        self::assertEquals(
            Fact::of(Struggle::StayedAtPlace, place: 'a'),
            self::afterSwap(['a' => $bad, 'b' => $good, 'c' => $good, 'd' => $good]),
        );
        self::assertEquals(
            Fact::of(Struggle::BothNow),
            self::afterSwap(['a' => $bad, 'b' => $bad, 'c' => $good, 'd' => $good, 'e' => $good]),
        );
        self::assertEquals(Fact::of(Struggle::Gone), self::afterSwap(['a' => $good, 'b' => $good, 'c' => $good]));
    }

    /** @param array<string, list<array{pct: float, rpm: list<float>}>> $motors */
    private static function afterSwap(array $motors): Fact
    {
        return RisingOutput::of($motors)->afterSwap('a', 'b');
    }

    /**
     * By hand: 16.8 V, 0.35, 24 kHz: ΔI = 16.8·0.35·0.65/(16e-6·24e3) = 9.953 A, R·ΔI²/12 = 0.743 W;
     * ½·16.8·4·34e-9·24e3 = 0.0274 W; 350e-9·24e3/0.08 = 0.105.
     */
    public function testTheSwitchingTradeIsWhatTheTextbookFormsGive(): void
    {
        $at24 = SwitchingTrade::of(24, 16.8, 4.0, 0.35, 350);
        self::assertEqualsWithDelta(0.743, $at24->rippleW, 0.001);
        self::assertEqualsWithDelta(0.0274, $at24->switchingW, 0.0001);
        self::assertEqualsWithDelta(0.895, $at24->lowAuthority, 0.0005);
        $at48 = SwitchingTrade::of(48, 16.8, 4.0, 0.35, 350);
        self::assertEqualsWithDelta($at24->rippleW / 4, $at48->rippleW, 1e-9);
        self::assertGreaterThan(0, $at48->flightTimePct($at24, 23.5));
        self::assertEqualsWithDelta(0, $at24->flightTimePct($at24, 23.5), 1e-9);
        self::assertLessThan($at24->lowAuthority, $at48->lowAuthority);
        self::assertSame(0.0, SwitchingTrade::of(400, 16.8, 4.0, 0.35, 350)->lowAuthority);
    }

    public function testABuildThatLeavesThingsOutCostsLess(): void
    {
        $set = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT));
        $full = LoopLoad::of($set, 4, 'F4')->percent;
        // 4 and 3 µs of 500 µs on the reference processor.
        self::assertEqualsWithDelta($full - 0.8, LoopLoad::of($set, 4, 'F4', ['gps'])->percent, 1e-9);
        self::assertEqualsWithDelta($full - 1.4, LoopLoad::of($set, 4, 'F4', ['gps', 'overlay'])->percent, 1e-9);
        self::assertEqualsWithDelta($full / 1.9, LoopLoad::of($set, 4, 'F7')->percent, 1e-9);
    }

    /** @param list<Tone> $tones */
    #[DataProvider('teaching')]
    public function testCalibrationSaysTheNextStep(
        MotorSignal $signal,
        bool $pack,
        ?TeachStep $held,
        array $tones,
        CalibrationStep $step,
        int $warnings,
    ): void {
        $at = EscCalibration::at($signal, true, $pack, $held, $tones, 4);
        self::assertSame($step, $at->step);
        self::assertCount($warnings, $at->warnings);
    }

    /** @return iterable<string, array{MotorSignal, bool, ?TeachStep, list<Tone>, CalibrationStep, int}> */
    public static function teaching(): iterable
    {
        $rising = array_fill(0, 4, Tone::TwoRising);
        $falling = array_fill(0, 4, Tone::ThreeFalling);
        yield 'digital' => [MotorSignal::Dshot600, true, null, [], CalibrationStep::NotNeeded, 0];
        yield 'pack still on' => [MotorSignal::Pwm, true, null, [], CalibrationStep::PackOff, 0];
        yield 'begin' => [MotorSignal::Pwm, false, null, [], CalibrationStep::Full, 0];
        yield 'held at full' => [MotorSignal::Oneshot125, false, TeachStep::Full, [], CalibrationStep::PackOn, 0];
        yield 'all took it' => [MotorSignal::Pwm, true, TeachStep::Full, $rising, CalibrationStep::Zero, 0];
        yield 'one did not' => [MotorSignal::Pwm, true, TeachStep::Full, \array_slice($rising, 1), CalibrationStep::Zero, 1];
        yield 'whole' => [MotorSignal::Pwm, true, TeachStep::Zero, [...$rising, ...$falling], CalibrationStep::End, 0];
        yield 'half' => [MotorSignal::Pwm, true, TeachStep::Zero, $rising, CalibrationStep::End, 1];
    }

    public function testPropsNotDeclaredAreMinded(): void
    {
        self::assertEquals(
            [Fact::of(CalibrationCode::TakePropsOff)],
            EscCalibration::at(MotorSignal::Pwm, false, false, null, [], 4)->warnings,
        );
        self::assertFalse(EscCalibration::isDone([Tone::PowerOn, Tone::ThreeFalling], 2));
        self::assertTrue(EscCalibration::isDone([Tone::ThreeFalling, Tone::ThreeFalling], 2));
    }

    /** @return list<array{pct: float, rpm: list<float>}> a motor that turns steadily from an output on, and wavers below */
    private static function motor(float $steadyFrom): array
    {
        $steps = [];
        foreach ([2.0, 2.5, 3.0, 3.5, 4.0, 4.5, 5.0, 5.5, 6.0] as $pct) {
            $rpm = [];
            for ($i = 0; $i < 60; ++$i) {
                $rpm[] = $pct < $steadyFrom - 0.6 ? 0.0 : 300 * $pct * (1 + ($pct < $steadyFrom ? 0.2 : 0.02) * sin($i));
            }
            $steps[] = ['pct' => $pct, 'rpm' => $rpm];
        }

        return $steps;
    }
}
