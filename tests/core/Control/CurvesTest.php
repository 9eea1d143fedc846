<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Control;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\ThrottleCurve;
use Ortholex\Core\Control\ThrottleCurveError;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** Feel and throttle: exact at their points, monotone between them, odd about the centre. */
final class CurvesTest extends TestCase
{
    public function testFeelIsOddMonotoneAndExactAtItsPoints(): void
    {
        $dice = new Lcg(31);
        for ($n = 0; $n < 400; ++$n) {
            $quarter = $dice->whole(5, 300);
            $half = $quarter + $dice->whole(1, 500);
            $full = $half + $dice->whole(1, 900);
            $feel = Feel::of($quarter, $half, $full);
            foreach ([[0.0, 0.0], [0.25, $quarter], [0.5, $half], [1.0, $full]] as [$stick, $rate]) {
                self::assertEqualsWithDelta($rate, $feel->rate($stick), 1e-9);
            }
            $before = 0.0;
            for ($i = 1; $i <= 200; ++$i) {
                $rate = $feel->rate($i / 200);
                self::assertGreaterThanOrEqual($before - 1e-9, $rate, "$quarter, $half, $full at $i");
                self::assertEqualsWithDelta(-$rate, $feel->rate(-$i / 200), 1e-9);
                // The slope that is drawn under it is that of the curve.
                $slope = ($feel->rate($i / 200 + 1e-6) - $feel->rate($i / 200 - 1e-6)) / 2e-6;
                if ($i < 200) {
                    self::assertEqualsWithDelta($slope, $feel->slope($i / 200), 1e-2 * max(1.0, abs($slope)));
                }
                $before = $rate;
            }
            self::assertEqualsWithDelta($feel->centreSlope(), $feel->slope(0.0), 1e-9);
        }
        $straight = Feel::of(100, 200, 400);
        self::assertEqualsWithDelta(292.0, $straight->rate(0.73), 1e-9, 'straight where the points are');
    }

    public function testThrottleRisesThroughHoverToItsLimit(): void
    {
        $dice = new Lcg(32);
        for ($n = 0; $n < 400; ++$n) {
            [$stick, $output] = [$dice->whole(15, 85) / 100, $dice->whole(5, 80) / 100];
            [$soft, $limit] = [$dice->whole(0, 80) / 100, $dice->whole((int) (100 * $output) + 2, 100) / 100];
            $curve = ThrottleCurve::of($stick, $output, $soft, $limit);
            self::assertEqualsWithDelta(0.0, $curve->output(0.0), 1e-12);
            self::assertEqualsWithDelta($output, $curve->output($stick), 1e-9);
            self::assertEqualsWithDelta($limit, $curve->output(1.0), 1e-9);
            $before = 0.0;
            for ($i = 1; $i <= 200; ++$i) {
                self::assertGreaterThanOrEqual($before - 1e-9, $curve->output($i / 200));
                $before = $curve->output($i / 200);
            }
        }
        $straight = ThrottleCurve::of(0.5, 0.5, 0.0, 1.0);
        foreach ([0.1, 0.37, 0.5, 0.81] as $x) {
            self::assertEqualsWithDelta($x, $straight->output($x), 1e-12);
        }
        $slope = static fn (ThrottleCurve $c): float => ($c->output(0.501) - $c->output(0.499)) / 0.002;
        self::assertEqualsWithDelta(0.6, $slope(ThrottleCurve::of(0.5, 0.5, 0.4, 1.0)), 0.01, 'by its softness gentler around hover');
        foreach ([[0.0, 0.3, 1.0], [0.5, 0.0, 1.0], [0.5, 0.9, 0.9], [1.0, 0.3, 1.0]] as [$at, $to, $limit]) {
            try {
                ThrottleCurve::of($at, $to, 0.0, $limit);
                self::fail("$at, $to, $limit");
            } catch (ThrottleCurveError $e) {
                self::assertStringContainsString('%', $e->getMessage());
            }
        }
    }
}
