<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Step;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Step\LoopModel;
use Ortholex\Core\Step\LoopParametersUnknown;
use Ortholex\Core\Step\StepCurve;
use Ortholex\Core\Step\StepNumbers;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Numbers of steps that the textbooks give in closed form (Ogata, Modern Control Engineering, 5-3). */
final class StepCurveTest extends TestCase
{
    /** @return iterable<string, array{float, float}> natural frequency rad/s, damping */
    public static function loops(): iterable
    {
        foreach ([40.0, 90.0] as $natural) {
            foreach ([0.2, 0.35, 0.5, 0.7, 0.85] as $damping) {
                yield "$natural rad/s, damping $damping" => [$natural, $damping];
            }
        }
    }

    #[DataProvider('loops')]
    public function testOvershootAndPeakTimeAreThoseOfTheSecondOrderLoop(float $natural, float $damping): void
    {
        $numbers = self::second($natural, $damping)->numbers();
        $root = sqrt(1 - $damping ** 2);
        self::assertEqualsWithDelta(1 + exp((-\M_PI * $damping) / $root), $numbers->peak, 1e-3);
        self::assertEqualsWithDelta((1e3 * \M_PI) / ($natural * $root), $numbers->peakMs, 0.1);
        self::assertEqualsWithDelta(1.0, $numbers->steady, 1e-3);
        self::assertNotNull($numbers->settlingMs);
        // Three time constants of the envelope are its five per cent: settling is never later, by more than rounding.
        self::assertLessThanOrEqual((1e3 * log(20 / $root)) / ($damping * $natural) + 0.5, $numbers->settlingMs);
    }

    public function testALagOfFirstOrderHasItsTimes(): void
    {
        foreach ([0.008, 0.02, 0.045] as $constant) {
            $values = [];
            for ($i = 0; $i < 2000; ++$i) {
                $values[] = 1 - exp((-$i * 0.0005) / $constant);
            }
            $numbers = (new StepCurve(0.0005, $values))->numbers();
            self::assertNotNull($numbers->delayMs);
            self::assertNotNull($numbers->riseMs);
            self::assertNotNull($numbers->settlingMs);
            self::assertEqualsWithDelta(1e3 * $constant * log(2), $numbers->delayMs, 0.05, 'half there');
            self::assertEqualsWithDelta(1e3 * $constant * log(9), $numbers->riseMs, 0.1, 'ten to ninety per cent');
            self::assertEqualsWithDelta(1e3 * $constant * log(20), $numbers->settlingMs, 0.6, 'within five per cent');
            // The area above it is the time constant, but for what follows twice the settling time: e to the −6.
            self::assertEqualsWithDelta(1e3 * $constant, $numbers->errorMs, 0.02 * 1e3 * $constant);
        }
    }

    public function testScaleChangesPeakAndSteadyAloneAndTimeChangesTimesAlone(): void
    {
        $one = self::second(60.0, 0.4);
        $numbers = $one->numbers();
        $twice = (new StepCurve($one->stepS, array_map(static fn (float $v): float => 2 * $v, $one->values)))->numbers();
        $slower = (new StepCurve(3 * $one->stepS, $one->values))->numbers();
        self::assertEqualsWithDelta(2 * $numbers->peak, $twice->peak, 1e-9);
        self::assertEqualsWithDelta(2 * $numbers->steady, $twice->steady, 1e-9);
        foreach (['delayMs', 'riseMs', 'peakMs', 'settlingMs', 'errorMs'] as $time) {
            self::assertEqualsWithDelta($numbers->{$time}, $twice->{$time}, 1e-9, $time);
            self::assertEqualsWithDelta(3 * $numbers->{$time}, $slower->{$time}, 1e-6, $time);
        }
        self::assertSame($numbers->peak, $slower->peak);
    }

    public function testWhatNeverSettlesHasNoSettlingTime(): void
    {
        $values = [];
        for ($i = 0; $i < 1000; ++$i) {
            $values[] = 1 + 0.3 * sin($i / 7);
        }
        self::assertNull((new StepCurve(0.001, $values))->numbers()->settlingMs);
        self::assertNull((new StepCurve(0.001, array_fill(0, 100, -1.0)))->crossing(-2.0), 'it is never there');
    }

    public function testAResponseOfOnesIsAStepAtOnce(): void
    {
        $curve = StepCurve::fromResponse(array_fill(0, 513, 1.0), array_fill(0, 513, 0.0), 1000.0, 0.2);
        self::assertSame(0.001, $curve->stepS);
        self::assertCount(201, $curve->values);
        self::assertEqualsWithDelta(0.5, $curve->values[0], 1e-9, 'half of the sample at zero lies before it');
        foreach (\array_slice($curve->values, 1) as $v) {
            self::assertEqualsWithDelta(1.0, $v, 1e-9);
        }
    }

    public function testAPureDelayIsAStepLater(): void
    {
        $re = $im = [];
        for ($k = 0; $k <= 512; ++$k) {
            $re[] = cos((2 * \M_PI * $k * 25) / 1024);
            $im[] = -sin((2 * \M_PI * $k * 25) / 1024);
        }
        $curve = StepCurve::fromResponse($re, $im, 1000.0, 0.1);
        self::assertEqualsWithDelta(0.0, $curve->values[24], 1e-6);
        self::assertEqualsWithDelta(0.5, $curve->values[25], 1e-6);
        self::assertEqualsWithDelta(1.0, $curve->values[26], 1e-6);
        self::assertEqualsWithDelta(25.0, $curve->numbers()->delayMs ?? 0, 1e-3);
    }

    public function testNumbersComeBackFromWhatIsKept(): void
    {
        $numbers = self::second(70.0, 0.5)->numbers()->rounded();
        self::assertEquals($numbers, StepNumbers::fromArray(Stored::of($numbers->toArray())));
        self::assertEquals($numbers, $numbers->rounded(), 'rounded once is rounded');
        $none = new StepNumbers(null, null, 0.0, 0.0, null, 0.0, 0.0);
        self::assertEquals($none, StepNumbers::fromArray(Stored::of($none->rounded()->toArray())));
    }

    public function testALoopIsFoundFromItsResponse(): void
    {
        $dice = new Lcg(21);
        for ($round = 0; $round < 12; ++$round) {
            $true = [
                0.9 + 0.2 * ($dice->next() + 0.5),
                log(40 + 120 * ($dice->next() + 0.5)),
                log(0.3 + 0.6 * ($dice->next() + 0.5)),
                0.002 + 0.008 * ($dice->next() + 0.5),
                0.0,
                0.0,
            ];
            $loop = LoopModel::known($true);
            $omega = $re = $im = [];
            for ($hz = 0.5; $hz <= 60; $hz += 0.5) {
                $omega[] = 2 * \M_PI * $hz;
                [$re[], $im[]] = $loop->response(2 * \M_PI * $hz);
            }
            $found = LoopModel::fit($omega, $re, $im, array_fill(0, \count($omega), 1.0));
            self::assertLessThan(1e-3, $found->misfit);
            foreach ($omega as $i => $w) {
                [$r, $m] = $found->response($w);
                self::assertEqualsWithDelta($re[$i], $r, 0.02);
                self::assertEqualsWithDelta($im[$i], $m, 0.02);
            }
            self::assertLessThanOrEqual($found->misfit + 1e-9, $found->refit($omega, $re, $im, array_fill(0, \count($omega), 1.0))->misfit);
        }
    }

    public function testALoopFromTooFewPointsOrOfOtherParametersIsRefused(): void
    {
        try {
            LoopModel::fit([1.0, 2.0], [1.0, 1.0], [0.0, 0.0], [1.0, 1.0]);
            self::fail('two frequencies are too few');
        } catch (SignalError $e) {
            self::assertNotSame('', $e->getMessage());
        }
        $this->expectException(LoopParametersUnknown::class);
        LoopModel::known([1.0, 2.0]);
    }

    private static function second(float $natural, float $damping): StepCurve
    {
        $root = sqrt(1 - $damping ** 2);
        $values = [];
        for ($i = 0; $i < 4000; ++$i) {
            $t = $i * 0.00025;
            $values[] =
                1 - exp(-$damping * $natural * $t) * (cos($natural * $root * $t) + ($damping / $root) * sin($natural * $root * $t));
        }

        return new StepCurve(0.00025, $values);
    }
}
