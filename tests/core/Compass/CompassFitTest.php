<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Compass;

use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Compass\Calibration;
use Ortholex\Core\Compass\CompassError;
use Ortholex\Core\Compass\CompassFit;
use Ortholex\Core\Compass\CompassFlaw;
use Ortholex\Core\Compass\CompassMounting;
use Ortholex\Core\Compass\MotorDisturbance;
use Ortholex\Core\Compass\SphereCoverage;
use Ortholex\Core\Compass\Symmetric3;
use Ortholex\Core\Craft\SettingSet;
use PHPUnit\Framework\TestCase;

/** Distortions made from a seed, and taken off again. */
final class CompassFitTest extends TestCase
{
    /** Heading within 2° all around, level and leaned, in 100 of 100. */
    public function testHeadingAfterCalibrationInHundredDistortions(): void
    {
        mt_srand(99);
        for ($case = 0; $case < 100; ++$case) {
            $field = 38 + 0.2 * mt_rand(0, 100);
            $dip = deg2rad(mt_rand(-70, 70));
            [$offset, $soft] = self::distortion();
            $fit = CompassFit::of(self::turned(400, $field, $offset, $soft, 0.5));
            $calibration = Calibration::of($fit->offset, $fit->matrix);
            for ($heading = 0; $heading < 360; $heading += 20) {
                foreach ([[0, 0], [20, -15], [-30, 25]] as [$roll, $pitch]) {
                    // From the world to the body: heading, then pitch, then roll.
                    $lies = Rotation::degrees($roll, $pitch, $heading);
                    $true = $lies->undo([$field * cos($dip), 0.0, $field * sin($dip)]);
                    $up = $lies->undo([0.0, 0.0, -1.0]);
                    $told = $calibration->heading(self::distorted($true, $offset, $soft), $up);
                    self::assertLessThan(2.0, abs(fmod($told - $heading + 540, 360) - 180), "case $case, heading $heading, roll $roll");
                }
            }
        }
    }

    public function testWhatDoesNotCalibrateIsRefused(): void
    {
        mt_srand(5);
        $sphere = self::turned(400, 50.0, [10.0, -5.0, 3.0], [[1, 0, 0], [0, 1, 0], [0, 0, 1]], 0.3);
        self::assertLessThan(0.01, CompassFit::of($sphere)->residual);
        $cases = [
            [CompassFlaw::TooFew, \array_slice($sphere, 0, 20)],
            [CompassFlaw::NotCovered, array_values(array_filter($sphere, static fn (array $s): bool => $s[2] > 15))],
            [CompassFlaw::NotCovered, array_fill(0, 100, [20.0, 0.0, 40.0])],
            [
                CompassFlaw::TooRough,
                array_map(static fn (array $s): array => [$s[0] + mt_rand(-15, 15), $s[1] + mt_rand(-15, 15), $s[2]], $sphere),
            ],
            [CompassFlaw::TooCrooked, array_map(static fn (array $s): array => [5 * $s[0], $s[1], $s[2]], $sphere)],
        ];
        foreach ($cases as [$flaw, $samples]) {
            try {
                CompassFit::of($samples);
                self::fail($flaw->value);
            } catch (CompassError $e) {
                self::assertSame($flaw, $e->flaw->code);
            }
        }
        $one = CompassFit::of([...$sphere, [400.0, 0.0, 0.0]]);
        self::assertSame(1, $one->leftOut, 'one reading far off is left out');
        self::assertEqualsWithDelta([10.0, -5.0, 3.0], $one->offset, 0.2);
    }

    public function testEachOfThe24MountingsIsFound(): void
    {
        mt_srand(12);
        $dip = 69.0;
        foreach (CompassMounting::rotations() as $angles) {
            $turn = Rotation::degrees(...$angles);
            $poses = [];
            for ($i = 0; $i < 40; ++$i) {
                $lies = Rotation::degrees(mt_rand(-180, 180), mt_rand(-80, 80), mt_rand(-180, 180));
                $field = $lies->undo([50 * cos(deg2rad($dip)), 0.0, 50 * sin(deg2rad($dip))]);
                $poses[] = [
                    $turn->undo(array_map(static fn (float $v): float => $v + 0.02 * mt_rand(-50, 50), $field)),
                    $lies->undo([0.0, 0.0, -1.0]),
                ];
            }
            $found = CompassMounting::of($poses, $dip);
            self::assertLessThan(
                1e-6,
                $turn->angleTo(Rotation::degrees($found->rollDeg, $found->pitchDeg, $found->yawDeg)),
                implode(',', $angles),
            );
            self::assertGreaterThan(6.0, $found->nextDeg - $found->residualDeg);
        }
        $this->expectException(CompassError::class);
        CompassMounting::of(array_fill(0, 20, [[10.0, 0.0, 40.0], [0.0, 0.0, -1.0]]), $dip);
    }

    public function testDisturbanceOfMotors(): void
    {
        mt_srand(31);
        for ($case = 0; $case < 100; ++$case) {
            $per = [mt_rand(-60, 60) / 100, mt_rand(-60, 60) / 100, mt_rand(-60, 60) / 100];
            $size = sqrt($per[0] ** 2 + $per[1] ** 2 + $per[2] ** 2);
            if ($size < 0.1) {
                continue;
            }
            $readings = [];
            for ($i = 0; $i < 80; ++$i) {
                $pct = 15.0 * ($i % 8) / 7;
                $noise = static fn (): float => mt_rand(-100, 100) / 500;
                $readings[] = [$pct, [18 + $per[0] * $pct + $noise(), 2 + $per[1] * $pct + $noise(), 44 + $per[2] * $pct + $noise()]];
            }
            $found = MotorDisturbance::of($readings);
            self::assertNotNull($found);
            self::assertEqualsWithDelta(1.0, $found->slopeUt / $size, 0.05, "case $case");
        }
        self::assertNull(MotorDisturbance::of(array_fill(0, 20, [5.0, [1.0, 2.0, 3.0]])), 'the output was never varied');
        $known = MotorDisturbance::of(array_map(static fn (int $i): array => [(float) $i, [0.1 * $i, 0.0, 0.3 * $i]], range(0, 12)));
        // 45 %: 4.5 µT level, of 18 µT: asin(¼) = 14.4775°.
        self::assertEqualsWithDelta(14.4775, $known?->headingErrorDeg(45.0, [0.0, 0.0, 1.0], 18.0), 1e-3);
        self::assertSame(180.0, $known?->headingErrorDeg(90.0, [1.0, 0.0, 0.0], 18.0));
    }

    public function testCoverageCountsEqualPatches(): void
    {
        mt_srand(8);
        $even = SphereCoverage::of((static function (): iterable {
            for ($i = 0; $i < 60_000; ++$i) {
                $z = 2 * mt_rand() / mt_getrandmax() - 1;
                $a = 2 * \M_PI * mt_rand() / mt_getrandmax();
                yield [sqrt(1 - $z * $z) * cos($a), sqrt(1 - $z * $z) * sin($a), $z];
            }
        })());
        self::assertSame(1.0, $even->share());
        self::assertGreaterThan(850, min($even->counts));
        self::assertLessThan(1150, max($even->counts));
        self::assertSame(1 / 60, SphereCoverage::of([[0.0, 0.1, 5.0]])->share());
        self::assertSame(0.0, SphereCoverage::of([[0.0, 0.0, 0.0]])->share());
    }

    public function testEigenvaluesOfAKnownMatrix(): void
    {
        // (2 −1 0; −1 2 −1; 0 −1 2): 2, 2 ± √2.
        $values = Symmetric3::of([[2.0, -1.0, 0.0], [-1.0, 2.0, -1.0], [0.0, -1.0, 2.0]])->values;
        sort($values);
        self::assertEqualsWithDelta([2 - \M_SQRT2, 2.0, 2 + \M_SQRT2], $values, 1e-12);
    }

    public function testSettingsCarryTheCalibration(): void
    {
        mt_srand(17);
        [$offset, $soft] = self::distortion();
        $fit = CompassFit::of(self::turned(500, 50.0, $offset, $soft, 0.1));
        $again = Calibration::in(SettingSet::of(Calibration::settings($fit)));
        $reading = [12.0, -30.0, 25.0];
        self::assertEqualsWithDelta($fit->apply($reading), $again->apply($reading), 0.1);
    }

    /**
     * @return array{array{float, float, float}, array{array{float, float, float}, array{float, float, float}, array{float, float,
     * float}}}
     */
    private static function distortion(): array
    {
        $some = static fn (float $most): float => $most * (2 * mt_rand() / mt_getrandmax() - 1);
        [$xy, $xz, $yz] = [$some(0.12), $some(0.12), $some(0.12)];

        return [
            [$some(60.0), $some(60.0), $some(60.0)],
            [[1 + $some(0.2), $xy, $xz], [$xy, 1 + $some(0.2), $yz], [$xz, $yz, 1 + $some(0.2)]],
        ];
    }

    /**
     * @param array{float, float, float} $true
     * @param array{float, float, float} $offset
     * @param array<array<float>>        $soft
     *
     * @return array{float, float, float}
     */
    private static function distorted(array $true, array $offset, array $soft): array
    {
        $out = [];
        for ($i = 0; $i < 3; ++$i) {
            $out[] = $soft[$i][0] * $true[0] + $soft[$i][1] * $true[1] + $soft[$i][2] * $true[2] + $offset[$i];
        }

        return [$out[0], $out[1], $out[2]];
    }

    /**
     * @param array{float, float, float} $offset
     * @param array<array<float>>        $soft
     *
     * @return list<array{float, float, float}>
     */
    private static function turned(int $count, float $field, array $offset, array $soft, float $noise): array
    {
        $normal = static fn (): float => sqrt(
            -2 * log(mt_rand(1, mt_getrandmax()) / mt_getrandmax()),
        ) * cos(2 * \M_PI * mt_rand() / mt_getrandmax());
        $out = [];
        for ($i = 0; $i < $count; ++$i) {
            [$x, $y, $z] = [$normal(), $normal(), $normal()];
            $k = $field / sqrt($x * $x + $y * $y + $z * $z);
            [$a, $b, $c] = self::distorted([$k * $x, $k * $y, $k * $z], $offset, $soft);
            $out[] = [$a + $noise * $normal(), $b + $noise * $normal(), $c + $noise * $normal()];
        }

        return $out;
    }

    /** Turned on the desk alone: the drawing and the words tell the same, whatever a wild fit thinks of it. */
    public function testTooLittleIsToldAsItWasSeenWhileTurned(): void
    {
        $ring = [];
        for ($i = 0; $i < 200; ++$i) {
            $a = $i * 2.4;
            $ring[] = [30 + 22 * cos($a), -20 + 22 * sin($a), 10 + 45 + 1.5 * sin(1.7 * $i)];
        }
        try {
            CompassFit::of($ring);
            self::fail('a ring calibrates nothing');
        } catch (CompassError $e) {
            self::assertSame(CompassFlaw::NotCovered, $e->fact()->code);
            self::assertEqualsWithDelta(100 * SphereCoverage::roughly($ring)->share(), $e->fact()->figures['covered_pct'], 1e-9);
        }
    }
}
