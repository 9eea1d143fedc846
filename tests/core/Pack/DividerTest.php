<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Pack;

use Ortholex\Core\Pack\Cells;
use Ortholex\Core\Pack\CurrentScale;
use Ortholex\Core\Pack\Divider;
use Ortholex\Core\Pack\PackCode;
use Ortholex\Core\Pack\PackError;
use PHPUnit\Framework\TestCase;

/** Scales by hand. */
final class DividerTest extends TestCase
{
    public function testOnePointIsARatio(): void
    {
        $set = Divider::onePoint(11.0, 16.5, 15.79);
        self::assertEqualsWithDelta((11.0 * 16.5) / 15.79, $set->scale, 1e-9);
        self::assertEqualsWithDelta(
            13.6 * (16.5 / 15.79),
            $set->alarmedAt(13.6),
            1e-9,
            'a low reading alarms early, at a higher true voltage',
        );
    }

    public function testTwoPointsTellWhatIsAddedToo(): void
    {
        // Reported = (true − 0.3)/1.05.
        $reported = static fn (float $true): float => ($true - 0.3) / 1.05;
        $set = Divider::twoPoints(11.0, [25.0, $reported(25.0)], [21.0, $reported(21.0)]);
        self::assertEqualsWithDelta(11.55, $set->scale, 1e-9);
        self::assertEqualsWithDelta(0.3, $set->offsetV, 1e-9);
        self::assertEqualsWithDelta(20.4, $set->alarmedAt($reported(20.4)), 1e-9);
    }

    public function testWhatNoScaleIsOffByIsRefused(): void
    {
        foreach (
            [
                [PackCode::TooFarOff, static fn () => Divider::onePoint(11.0, 16.6, 12.4)],
                [PackCode::TooFarOff, static fn () => Divider::onePoint(11.0, 8.0, 16.0)],
                [PackCode::NoVolts, static fn () => Divider::onePoint(11.0, 0.0, 16.0)],
                [PackCode::NoVolts, static fn () => Divider::onePoint(11.0, \NAN, 16.0)],
                [PackCode::NoVolts, static fn () => Divider::onePoint(11.0, 16.0, 0.1)],
                [PackCode::TooNear, static fn () => Divider::twoPoints(11.0, [16.0, 15.5], [15.6, 15.1])],
                [PackCode::NoVolts, static fn () => CurrentScale::of(10.0, 0.02, 0.9)],
            ] as [$code, $do]
        ) {
            try {
                $do();
                self::fail($code->value);
            } catch (PackError $e) {
                self::assertTrue($e->fact()->is($code), $code->value);
            }
        }
        self::assertEqualsWithDelta(11.0 * 1.15, Divider::onePoint(11.0, 11.5, 10.0)->scale, 1e-9, 'fifteen percent is still believed');
    }

    public function testCurrentByTheCharger(): void
    {
        // The sensor counted 0.9 of what was put back: it showed too few amperes, so its scale was too large.
        self::assertEqualsWithDelta(9.0, CurrentScale::of(10.0, 0.9, 1.0), 1e-9);
    }

    public function testCellsByVoltageAreAskedWhereTheyAreNotSure(): void
    {
        self::assertSame([4], Cells::of(16.4));
        self::assertSame([6, 7], Cells::of(24.9));
        self::assertSame([3], Cells::of(12.6));
        self::assertSame([5, 6], Cells::of(20.1));
        self::assertSame([], Cells::of(2.0));
    }
}
