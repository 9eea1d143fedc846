<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Control;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\FeelError;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The feel through three points: it meets them, rises all the way, is odd, and bends nowhere suddenly. */
final class FeelTest extends TestCase
{
    /** @return iterable<string, array{float, float, float}> quarter, half, full */
    public static function feels(): iterable
    {
        yield 'straight' => [100, 200, 400];
        yield 'ours' => [90, 230, 600];
        yield 'soft in the middle' => [15, 60, 900];
        yield 'steep in the middle' => [300, 320, 330];
        yield 'a kink at half' => [190, 200, 1800];
        yield 'a kink at a quarter' => [5, 795, 800];
    }

    #[DataProvider('feels')]
    public function testItMeetsItsPointsAndRisesAllTheWay(float $quarter, float $half, float $full): void
    {
        $feel = Feel::of($quarter, $half, $full);
        foreach ([[0.0, 0.0], [0.25, $quarter], [0.5, $half], [1.0, $full]] as [$stick, $rate]) {
            self::assertEqualsWithDelta($rate, $feel->rate($stick), 1e-9);
        }
        self::assertSame($full, $feel->full());
        $before = -1e-9;
        for ($i = 0; $i <= 2000; ++$i) {
            $rate = $feel->rate($i / 2000);
            self::assertGreaterThanOrEqual($before - 1e-9, $rate, "at $i of 2000");
            self::assertEqualsWithDelta(-$rate, $feel->rate(-$i / 2000), 1e-12, 'left is right turned about');
            $before = $rate;
        }
        self::assertSame($feel->rate(1.0), $feel->rate(1.7), 'no stick goes further than it goes');
    }

    /** The slope is the same from both sides of each point: a thumb feels no edge. */
    #[DataProvider('feels')]
    public function testItHasNoEdge(float $quarter, float $half, float $full): void
    {
        $feel = Feel::of($quarter, $half, $full);
        $h = 1e-6;
        foreach ([0.25, 0.5] as $x) {
            $left = ($feel->rate($x) - $feel->rate($x - $h)) / $h;
            $right = ($feel->rate($x + $h) - $feel->rate($x)) / $h;
            self::assertEqualsWithDelta($left, $right, 1e-2 * max(1.0, abs($left)));
        }
        self::assertEqualsWithDelta($feel->rate($h) / $h, $feel->centreSlope(), 1e-2 * max(1.0, $feel->centreSlope()));
    }

    public function testAStraightFeelIsStraight(): void
    {
        $feel = Feel::of(100, 200, 400);
        for ($i = -20; $i <= 20; ++$i) {
            self::assertEqualsWithDelta(400 * $i / 20, $feel->rate($i / 20), 1e-9);
        }
        self::assertEqualsWithDelta(400.0, $feel->centreSlope(), 1e-9);
    }

    public function testAnyThreeRisingPointsMakeAFeel(): void
    {
        $dice = new Lcg(5);
        for ($round = 0; $round < 300; ++$round) {
            $quarter = (float) $dice->whole(5, 400);
            $half = $quarter + $dice->whole(1, 500);
            $full = $half + $dice->whole(1, 900);
            $feel = Feel::of($quarter, $half, $full);
            $before = 0.0;
            for ($i = 1; $i <= 100; ++$i) {
                $rate = $feel->rate($i / 100);
                self::assertGreaterThanOrEqual($before - 1e-9, $rate);
                self::assertLessThanOrEqual($full + 1e-9, $rate, 'nowhere more than at full stick');
                $before = $rate;
            }
        }
    }

    /** @return iterable<string, array{float, float, float}> */
    public static function noFeels(): iterable
    {
        yield 'falls' => [200, 100, 400];
        yield 'stands' => [100, 100, 400];
        yield 'falls at the end' => [100, 200, 200];
        yield 'begins at nothing' => [0, 200, 400];
        yield 'begins below it' => [-10, 200, 400];
    }

    #[DataProvider('noFeels')]
    public function testWhatDoesNotRiseIsNoFeel(float $quarter, float $half, float $full): void
    {
        try {
            Feel::of($quarter, $half, $full);
            self::fail('it was taken');
        } catch (FeelError $e) {
            self::assertSame([$quarter, $half, $full], [$e->quarter, $e->half, $e->full]);
        }
    }

    public function testEachAxisHasItsOwn(): void
    {
        $set = [];
        foreach (Axis::cases() as $i => $axis) {
            $set["feel.$axis->value.quarter_dps"] = 50.0 + $i;
            $set["feel.$axis->value.half_dps"] = 150.0 + $i;
            $set["feel.$axis->value.full_dps"] = 500.0 + $i;
        }
        foreach (Axis::cases() as $i => $axis) {
            $feel = Feel::in(SettingSet::of($set), $axis);
            self::assertSame([50.0 + $i, 150.0 + $i, 500.0 + $i], [$feel->rate(0.25), $feel->rate(0.5), $feel->rate(1.0)]);
        }
    }
}
