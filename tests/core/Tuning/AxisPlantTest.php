<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Tuning;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Step\StepNumbers;
use Ortholex\Core\Step\StepOutcome;
use Ortholex\Core\Tuning\AxisNotExcited;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\GainTuner;
use Ortholex\Core\Tuning\LoopPrediction;
use Ortholex\Tests\Cases;
use Ortholex\Tests\core\Lcg;
use Ortholex\Tests\core\Step\KnownLoop;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class AxisPlantTest extends TestCase
{
    /** @return iterable<string, array{float, float, float, float}> gain, lag s, dead time s, sample rate Hz */
    public static function plants(): iterable
    {
        yield 'a light quad' => [700.0, 0.022, 0.003, 2000.0];
        yield 'a heavy hexa' => [180.0, 0.045, 0.005, 1000.0];
        yield 'quick motors' => [900.0, 0.012, 0.002, 2000.0];
    }

    /** The loop is closed, with gusts inside it: a plain ratio of spectra would be biased, the instrument is not. */
    #[DataProvider('plants')]
    public function testIsIdentifiedInClosedLoopThroughGusts(float $gain, float $lag, float $dead, float $rate): void
    {
        [$x, $u, $y] = self::closedLoop($gain, $lag, $dead, $rate, 40, 25.0 / ($gain * $lag) / 10, 60.0);
        $plant = AxisPlant::identify([$x], [$u], [$y], $rate);
        self::assertEqualsWithDelta($gain, $plant->effectiveness, 0.12 * $gain);
        self::assertEqualsWithDelta($lag, $plant->lagS, 0.15 * $lag + 0.001);
        self::assertEqualsWithDelta($dead, $plant->deadS, 0.002);
    }

    public function testAStillStickTellsNothing(): void
    {
        $this->expectExceptionObject(AxisNotExcited::movedTooLittle(0));
        AxisPlant::identify([array_fill(0, 20000, 0.0)], [array_fill(0, 20000, 1.0)], [array_fill(0, 20000, 2.0)], 1000);
    }

    public function testAShortLogTellsNothing(): void
    {
        $this->expectExceptionObject(AxisNotExcited::tooShort(0));
        AxisPlant::identify([array_fill(0, 900, 5.0)], [array_fill(0, 900, 1.0)], [array_fill(0, 900, 2.0)], 1000);
    }

    /** P alone on b/((s+1)(τs+1)) is a second-order loop: ωn² = (1 + bP)/τ, 2ζωn = 1/τ + 1 (Ogata, ch. 5). */
    public function testAPredictionWithPAloneIsTheTextbookLoop(): void
    {
        foreach ([[500.0, 0.02, 10.0], [300.0, 0.03, 20.0], [800.0, 0.012, 12.0]] as [$b, $lag, $p]) {
            $k = ($b * $p) / 100;
            $natural = sqrt((1 + $k) / $lag);
            $damping = (1 / $lag + 1) / (2 * $natural);
            $loop = new KnownLoop($natural, $damping, 0.0);
            $predicted = LoopPrediction::of(AxisPlant::known($b, $lag, 0.0, 0.0), new GainSet($p, 0.0, 0.0, 0.0), self::noFilters())->curve;
            $steady = $k / (1 + $k);
            foreach ([0.005, 0.01, 0.02, 0.05, 0.1] as $t) {
                self::assertEqualsWithDelta($steady * $loop->step($t), $predicted->values[(int) round($t * 1000)], 0.02, "b $b at $t s");
            }
            self::assertEqualsWithDelta($steady * $loop->peak(), $predicted->numbers()->peak, 0.02);
        }
    }

    public function testIntegralTakesTheRestAndFeedForwardTheLag(): void
    {
        $plant = AxisPlant::known(500, 0.02, 0.003, 0);
        $of = static fn (GainSet $g): StepNumbers => LoopPrediction::of($plant, $g, self::noFilters())->curve->numbers();
        self::assertLessThan(1.0, $of(new GainSet(20, 0, 2, 0))->steady);
        self::assertEqualsWithDelta(1.0, $of(new GainSet(20, 300, 2, 0))->steady, 0.02);
        self::assertLessThan($of(new GainSet(20, 80, 2, 0))->delayMs, $of(new GainSet(20, 80, 2, 1.0))->delayMs);
        self::assertLessThan($of(new GainSet(25, 80, 0.5, 0))->peak, $of(new GainSet(25, 80, 2.5, 0))->peak, 'D damps');
    }

    public function testTooMuchPOscillatesAndSaysSo(): void
    {
        $plant = AxisPlant::known(700, 0.025, 0.003, 0);
        self::assertTrue(LoopPrediction::of($plant, new GainSet(20, 70, 2, 0), self::noFilters())->isStable());
        self::assertFalse(LoopPrediction::of($plant, new GainSet(110, 70, 0.2, 0), self::noFilters())->isStable());
        // Far past the edge the sensitivity looks calm again; only going round zero tells. In time, these grow without end.
        foreach ([50, 60, 80, 110] as $p) {
            $prediction = LoopPrediction::of(AxisPlant::known(700, 0.025, 0.006, 0), new GainSet($p, 70, 1.0, 0), self::noFilters());
            self::assertFalse($prediction->isStable(), "P $p");
        }
        self::assertLessThan(2.0, $prediction->sensitivity);
    }

    public function testAdviceDampsWhatRingsAndLeavesAloneWhatDoesNot(): void
    {
        $plant = AxisPlant::known(700, 0.024, 0.003, 0);
        foreach ([[33.0, 1.5], [40.0, 2.0], [28.0, 1.0]] as [$p, $d]) {
            $now = new GainSet($p, 70, $d, 0);
            $peak = LoopPrediction::of($plant, $now, self::noFilters())->curve->numbers()->peak;
            self::assertSame(StepOutcome::Overshoots, StepOutcome::ofPeak($peak));
            $advice = GainTuner::advise($plant, $now, self::noFilters(), $peak);
            self::assertNotNull($advice);
            self::assertLessThan($peak - 0.1, $advice->prediction->curve->numbers()->peak);
            self::assertGreaterThan(0.55, $advice->margins->modulus);
            self::assertTrue($advice->prediction->isStable());
            // Asked again and again it comes to rest.
            for ($n = 0, $gains = $advice->gains; null !== $advice && $n < 4; ++$n) {
                $advice = GainTuner::advise($plant, $gains, self::noFilters(), $advice->prediction->curve->numbers()->peak);
                $gains = $advice->gains ?? $gains;
            }
            self::assertNull($advice);
        }
    }

    public function testAdviceMakesWhatIsSluggishQuickerNoFurtherThanOneFlightTells(): void
    {
        $plant = AxisPlant::known(600, 0.02, 0.003, 0);
        $now = new GainSet(6, 20, 0.3, 0.7);
        $advice = GainTuner::advise($plant, $now, self::noFilters(), 1.02);
        self::assertNotNull($advice);
        self::assertGreaterThan(1.5 * $now->p, $advice->gains->p);
        self::assertLessThanOrEqual(2.2 * $now->p + 0.5, $advice->gains->p);
        self::assertSame(0.7, $advice->gains->ff, 'feed-forward is another step');
        $delay = static fn (GainSet $g): float => LoopPrediction::of($plant, new GainSet($g->p, $g->i, $g->d, 0), self::noFilters())
            ->curve->numbers()->delayMs ?? 99.0;
        self::assertLessThan(0.8 * $delay($now), $delay($advice->gains));
        $yaw = GainTuner::best(AxisPlant::known(120, 0.03, 0.003, 0), new GainSet(10, 30, 0, 0), self::noFilters(), false);
        self::assertSame(0.0, $yaw?->gains->d, 'yaw gets no D');
    }

    /** None of the advised sets is unstable, or rings, on the axis that it is for. */
    public function testAdviceForManyAxesKeepsItsMargin(): void
    {
        $lcg = new Lcg(31);
        $told = 0;
        $all = Cases::many(100, 40);
        for ($n = 0; $n < $all; ++$n) {
            $plant = AxisPlant::known($lcg->whole(250, 1100), $lcg->whole(10, 45) / 1000, $lcg->whole(1, 6) / 1000, 0);
            $now = new GainSet($lcg->whole(4, 60), $lcg->whole(10, 120), $lcg->whole(0, 50) / 10, 0);
            $best = GainTuner::best($plant, $now, self::noFilters());
            if (null === $best) {
                continue;
            }
            ++$told;
            self::assertTrue($best->prediction->isStable());
            self::assertGreaterThan(0.5, $best->margins->modulus);
            self::assertLessThan(1.16, $best->prediction->curve->numbers()->peak);
        }
        self::assertGreaterThan(0.7 * $all, $told);
    }

    public function testVerdictsOnPeaks(): void
    {
        self::assertSame(
            [StepOutcome::FallsShort, StepOutcome::Clean, StepOutcome::Clean, StepOutcome::Overshoots],
            array_map(StepOutcome::ofPeak(...), [0.9, 1.0, 1.15, 1.2]),
        );
    }

    private static function noFilters(): RateFilters
    {
        return RateFilters::of(
            SettingSet::of([
                'rate_path.stage.1.kind' => 'off',
                'rate_path.stage.2.kind' => 'off',
                'd_path.stage.1.kind' => 'off',
                'd_path.stage.2.kind' => 'off',
            ]),
            8000,
        );
    }

    /** @return array{list<float>, list<float>, list<float>} setpoint, command, rate */
    private static function closedLoop(float $gain, float $lag, float $dead, float $rate, int $seconds, float $p, float $gust): array
    {
        $dice = new Lcg(31);
        $fine = 4;
        $h = 1 / $rate / $fine;
        $line = array_fill(0, max(1, (int) round($dead / $h)), 0.0);
        $place = 0;
        $x = $u = $y = [];
        $goal = $slow = $smooth = $until = $torque = $v = $wind = 0.0;
        for ($i = 0, $n = (int) ($rate * $seconds); $i < $n; ++$i) {
            $t = $i / $rate;
            if ($t >= $until) {
                $goal = 700 * $dice->next();
                $until = $t + 0.2 + 0.3 * ($dice->next() + 0.5);
            }
            $command = $p * ($smooth - $v);
            $x[] = $smooth;
            $u[] = $command;
            $y[] = $v + 0.5 * $dice->normal();
            $wind += (-3 * $wind + $gust * 60 * $dice->normal()) / $rate;
            for ($j = 0; $j < $fine; ++$j) {
                $slow += (($goal - $slow) * $h) / 0.015;
                $smooth += (($slow - $smooth) * $h) / 0.015;
                $late = $line[$place];
                $line[$place] = $command;
                $place = ($place + 1) % \count($line);
                $torque += (($late - $torque) * $h) / $lag;
                $v += ($gain * $torque + $wind - $v) * $h;
            }
        }

        return [$x, $u, $y];
    }
}
