<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Tuning;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\Disturbance;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\LoopMargins;
use Ortholex\Core\Tuning\LoopReport;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** P alone on b·e^(−sT)/((s + 1)(τs + 1)): gain and phase are written down by hand, their crossings found by halving. */
final class LoopMarginsTest extends TestCase
{
    public function testMarginsOfAHundredLoopsAreThoseOfTheirFormula(): void
    {
        $lcg = new Lcg(99);
        $seen = 0;
        for ($i = 0; $i < 100; ++$i) {
            [$b, $lag, $dead, $p] = [$lcg->whole(100, 900), $lcg->whole(8, 60) / 1000, $lcg->whole(1, 9) / 1000, $lcg->whole(5, 60)];
            $k = ($b * $p) / 100;
            $gain = static fn (float $w): float => $k / sqrt((1 + $w * $w) * (1 + $lag * $lag * $w * $w));
            $phase = static fn (float $w): float => atan($w) + atan($lag * $w) + $dead * $w;
            $margins = LoopMargins::of(AxisPlant::known($b, $lag, $dead, 0.0), new GainSet($p, 0, 0, 0), self::bare());
            $cross = self::where(static fn (float $w): bool => $gain($w) > 1);
            $turn = self::where(static fn (float $w): bool => $phase($w) < \M_PI);
            self::assertEqualsWithDelta($cross / 2 / \M_PI, $margins->crossoverHz, 0.01 * $cross / 2 / \M_PI);
            self::assertEqualsWithDelta(180 - rad2deg($phase($cross)), $margins->phaseDeg, 0.3);
            self::assertEqualsWithDelta(-20 * log10($gain($turn)), $margins->gainDb, 0.05);
            // The least distance from −1, searched finely.
            $least = \INF;
            for ($w = 0.05 * $turn; $w < 3 * $turn; $w *= 1.001) {
                $least = min($least, hypot(1 + $gain($w) * cos($phase($w)), $gain($w) * sin($phase($w))));
            }
            self::assertEqualsWithDelta($least, $margins->modulus, 0.02 * $least + 0.002);
            $seen += $margins->gainDb < 0 ? 1 : 0;
        }
        self::assertGreaterThan(5, $seen, 'some of them oscillate, and their margin is below nought');
        self::assertLessThan(95, $seen);
    }

    public function testALoopThatNeverComesToOneHasNoPhaseMargin(): void
    {
        $margins = LoopMargins::of(AxisPlant::known(2.0, 0.02, 0.002, 0.0), new GainSet(20, 0, 0, 0), self::bare());
        self::assertNull($margins->phaseDeg);
        self::assertNull($margins->crossoverHz);
        self::assertGreaterThan(30, $margins->gainDb);
    }

    public function testDelayInTheFiltersCostsMargin(): void
    {
        $plant = AxisPlant::known(500, 0.02, 0.003, 0.0);
        $with = RateFilters::of(SettingSet::of(['rate_path.stage.1.kind' => 'second_order', 'rate_path.stage.1.cutoff_hz' => 80.0]), 4000);
        $gains = new GainSet(10, 20, 0.4, 0);
        $bare = LoopMargins::of($plant, $gains, self::bare());
        $late = LoopMargins::of($plant, $gains, $with);
        self::assertLessThan($bare->phaseDeg, $late->phaseDeg);
        self::assertLessThan($bare->gainDb, $late->gainDb);
        self::assertLessThan($bare->modulus, $late->modulus);
    }

    /** A first-order loop: y' = push − (1 + bP)·y, so y = push/(1 + bP)·(1 − e^(−(1 + bP)t)). */
    public function testAPushTurnsAQuickLoopAsItsFormulaSays(): void
    {
        $k = 30.0;
        $push = Disturbance::of(AxisPlant::known(100, 0.0002, 0.0, 0.0), new GainSet($k, 0, 0, 0), self::bare());
        foreach ([20, 50, 100, 300] as $ms) {
            self::assertEqualsWithDelta((100 / (1 + $k)) * (1 - exp((-(1 + $k) * $ms) / 1000)), $push->rateDps[$ms], 0.04);
        }
        $integral = Disturbance::of(AxisPlant::known(100, 0.0002, 0.0, 0.0), new GainSet($k, 400, 0, 0), self::bare());
        self::assertLessThan(0.1, $integral->rateDps[500], 'I takes it back to nought');
        self::assertNotNull($integral->halfMs);
        self::assertLessThan($push->peakDps, $integral->peakDps);
    }

    public function testAReportIsPlainNumbersAndSaysWhatOscillates(): void
    {
        $set = static fn (float $p): SettingSet => SettingSet::of(['gain.roll.p' => $p, 'gain.roll.i' => 10.0, 'gain.roll.d' => 0.0]);
        $report = LoopReport::under(AxisPlant::known(500, 0.02, 0.004, 0.0), Axis::Roll, $set(6.0), 4000.0, []);
        $told = $report->toArray();
        self::assertTrue($told['stable']);
        self::assertIsArray($told['step']);
        self::assertIsFloat($told['step']['peak']);
        $wild = $report->with($set(100.0))->toArray();
        self::assertFalse($wild['stable']);
        self::assertSame(['delay_ms' => null, 'rise_ms' => null, 'peak' => null], $wild['step']);
        self::assertLessThan(0, $wild['gain_margin_db']);
    }

    private static function bare(): RateFilters
    {
        return RateFilters::of(SettingSet::none(), 4000);
    }

    /** @param \Closure(float): bool $below true below what is looked for, rad/s */
    private static function where(\Closure $below): float
    {
        [$low, $high] = [0.01, 20000.0];
        for ($i = 0; $i < 200; ++$i) {
            $middle = sqrt($low * $high);
            if ($below($middle)) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }
}
