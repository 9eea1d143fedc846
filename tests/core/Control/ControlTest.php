<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Control;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\FeelError;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Radio\ChannelSpan;
use Ortholex\Core\Settings\Catalogue;
use PHPUnit\Framework\TestCase;

final class ControlTest extends TestCase
{
    public function testFeelMeetsItsThreeRatesAndIsOdd(): void
    {
        foreach ([[90, 230, 600], [40, 150, 900], [10, 20, 700], [200, 210, 1200], [20, 500, 510]] as [$q, $h, $f]) {
            $feel = Feel::of($q, $h, $f);
            self::assertEqualsWithDelta($q, $feel->rate(0.25), 1e-9);
            self::assertEqualsWithDelta($h, $feel->rate(0.5), 1e-9);
            self::assertEqualsWithDelta($f, $feel->rate(1), 1e-9);
            self::assertEqualsWithDelta($feel->centreSlope(), $feel->rate(1e-7) / 1e-7, 0.001 * $feel->centreSlope());
            $last = -\INF;
            for ($x = -1.0; $x <= 1.0; $x += 0.01) {
                self::assertEqualsWithDelta(-$feel->rate($x), $feel->rate(-$x), 1e-9);
                self::assertGreaterThan($last, $feel->rate($x));
                $last = $feel->rate($x);
            }
            // No kink where the pieces meet: the slope from either side is the same.
            foreach ([0.25, 0.5] as $at) {
                $left = ($feel->rate($at) - $feel->rate($at - 1e-6)) / 1e-6;
                $right = ($feel->rate($at + 1e-6) - $feel->rate($at)) / 1e-6;
                self::assertEqualsWithDelta($left, $right, 0.01 * max($left, $right) + 0.1);
            }
        }
    }

    /** By hand: chords 400, 400, 800 and slopes 400, 400, 600, 800; the middle is the mean less an eighth of width × slopes’ difference. */
    public function testFeelIsTheCubicOfItsThreePoints(): void
    {
        $feel = Feel::of(100, 200, 600);
        self::assertSame(400.0, $feel->centreSlope());
        self::assertEqualsWithDelta(50.0, $feel->rate(0.125), 1e-9, 'straight where the points are');
        self::assertEqualsWithDelta(400 - 0.5 / 8 * 200, $feel->rate(0.75), 1e-9);
        self::assertSame(600.0, $feel->full());
        $straight = Feel::of(100, 200, 400);
        for ($x = -1.0; $x <= 1.0; $x += 0.1) {
            self::assertEqualsWithDelta(400 * $x, $straight->rate($x), 1e-9);
        }
    }

    public function testAFeelThatDoesNotRiseSaysItsThreeRates(): void
    {
        foreach ([[0, 100, 200], [100, 100, 200], [100, 90, 200], [100, 300, 300], [-5, 10, 20]] as [$q, $h, $f]) {
            try {
                Feel::of($q, $h, $f);
                self::fail("$q, $h, $f");
            } catch (FeelError $e) {
                self::assertStringContainsString("$q, $h and $f deg/s", $e->getMessage());
            }
        }
    }

    public function testSpanMapsPiecewiseClampedAndRescaledPastTheDeadBand(): void
    {
        $span = ChannelSpan::of(1050, 1480, 1990);
        self::assertSame(
            [-1.0, -1.0, 0.0, 1.0, 1.0],
            array_map(static fn (float $us): float => $span->position($us), [900.0, 1050.0, 1480.0, 1990.0, 2200.0]),
        );
        self::assertEqualsWithDelta(0.5, $span->position(1735), 1e-9);
        self::assertSame(0.0, $span->position(1484, 5));
        self::assertEqualsWithDelta(1 / 505, $span->position(1486, 5), 1e-9, 'nothing jumps at the edge');
        self::assertSame(1.0, $span->position(1990, 5));
        self::assertSame(1.0, ChannelSpan::of(1050, 1480, 1990, true)->position(1050));
        $this->expectException(\InvalidArgumentException::class);
        ChannelSpan::of(1500, 1400, 2000);
    }

    public function testFiltersFollowTheSettings(): void
    {
        $s = Catalogue::loam()->defaults(Version::parse('26.06'));
        $plain = RateFilters::of($s, 2000);
        self::assertCount(1, $plain->ratePath->stages);
        self::assertEqualsWithDelta(-3.01, $plain->ratePath->gainDb(180), 0.01);
        self::assertEqualsWithDelta(-3.01, $plain->dPath->gainDb(95), 0.01);
        $s = $s->with(['notch.motor.orders' => '1,2', 'rate_path.stage.2.kind' => 'first_order']);
        self::assertCount(2, RateFilters::of($s, 2000, [150.0, 160.0])->ratePath->stages, 'no notches without feedback');
        $tracked = RateFilters::of($s->with(['motors.rpm_feedback' => true]), 2000, [150.0, 30.0])->ratePath;
        self::assertCount(6, $tracked->stages);
        self::assertLessThan(-60, $tracked->gainDb(300));
        self::assertLessThan(-60, $tracked->gainDb(80), 'held at the floor');
    }

    public function testLoadGrowsWithWorkAndShrinksWithTheProcessor(): void
    {
        $s = Catalogue::loam()->defaults(Version::parse('26.06'));
        $base = LoopLoad::of($s, 4, 'F4')->percent;
        $more = LoopLoad::of($s->with(['notch.motor.orders' => '1,2', 'motors.rpm_feedback' => true]), 4, 'F4')->percent;
        // Four motors, two harmonics, three axes: 24 biquads of 1.2 µs at 2 kHz.
        self::assertEqualsWithDelta(24 * 1.2e-6 * 2000 * 100, $more - $base, 1e-9);
        self::assertEqualsWithDelta($base / 1.9, LoopLoad::of($s, 4, 'F7')->percent, 1e-9);
        self::assertGreaterThan(3.5 * $base, LoopLoad::of($s->with(['motors.loop_rate_hz' => '8000']), 4, 'F4')->percent);
    }

    public function testAFilterStandsUpToNearlyHalfTheLoopRateAndNoHigher(): void
    {
        self::assertEqualsWithDelta(960.0, RateFilters::highestHz(2000), 1e-9);
        $set = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with(['rate_path.stage.1.cutoff_hz' => 900.0]);
        self::assertEqualsWithDelta(-3.01, RateFilters::of($set, 2000)->ratePath->gainDb(900), 0.01, 'as it is set');
        self::assertEqualsWithDelta(-3.01, RateFilters::of($set, 1000)->ratePath->gainDb(480), 0.01, 'as high as the loop holds it');
        $notched = $set->with(['notch.motor.orders' => '1', 'motors.rpm_feedback' => true]);
        self::assertCount(2, RateFilters::of($notched, 2000, [950.0])->ratePath->stages);
        self::assertCount(1, RateFilters::of($notched, 2000, [970.0])->ratePath->stages, 'there is no room for a notch there');
    }
}
