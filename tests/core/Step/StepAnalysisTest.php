<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Step;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Step\Confidence\Confidence;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\FlyInstead;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\Exclusion;
use Ortholex\Core\Step\NoStepResponse;
use Ortholex\Core\Step\StepAnalysis;
use Ortholex\Core\Step\StepCurve;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class StepAnalysisTest extends TestCase
{
    /** @return iterable<string, array{float, float, float, float}> natural frequency rad/s, damping, dead time s, sample rate Hz */
    public static function loops(): iterable
    {
        foreach (
            [
                [40.0, 0.6, 0.002],
                [60.0, 0.4, 0.004],
                [90.0, 0.7, 0.004],
                [130.0, 0.35, 0.003],
                [170.0, 0.8, 0.002],
                [60.0, 1.1, 0.003],
                [35.0, 0.3, 0.005],
            ] as $i => [$w, $z, $d]
        ) {
            foreach ([500.0, 1000.0, 2000.0, 3200.0] as $j => $rate) {
                if (0 === ($i + $j) % 2) {
                    yield "ω $w, ζ $z, sampled at $rate Hz" => [$w, $z, $d, $rate];
                }
            }
        }
    }

    #[DataProvider('loops')]
    public function testKnownLoopsAreRecoveredFromNoise(float $natural, float $damping, float $dead, float $rate): void
    {
        $loop = new KnownLoop($natural, $damping, $dead);
        [$x, $y] = $loop->fly($rate, 30, 20, (int) ($natural + $rate));
        $result = StepAnalysis::of([$x], [$y], $rate);
        self::assertNotNull($result->numbers->delayMs);
        self::assertEqualsWithDelta(1e3 * $loop->delayS(), $result->numbers->delayMs, 1.5);
        self::assertEqualsWithDelta($loop->peak(), $result->numbers->peak, 0.03);
        self::assertEqualsWithDelta(1.0, $result->numbers->steady, 0.04);
        self::assertGreaterThan(20, $result->used);
        self::assertSame(Grade::Firm, Confidence::in($result, 0, 100)->grade);
        foreach ([0.01, 0.02, 0.04, 0.08, 0.16] as $t) {
            self::assertEqualsWithDelta($loop->step($t), $result->curve->values[(int) round($t / $result->curve->stepS)], 0.06, "at $t s");
        }
    }

    public function testLessFlightMeansWiderIntervals(): void
    {
        $loop = new KnownLoop(70, 0.5, 0.003);
        [$x, $y] = $loop->fly(1000, 60, 14, 5);
        $width = static function (float $seconds) use ($x, $y): float {
            $n = (int) (1000 * $seconds);
            [$low, $high] = StepAnalysis::of([\array_slice($x, 0, $n)], [\array_slice($y, 0, $n)], 1000)->intervals['peak'];

            return $high - $low;
        };
        self::assertGreaterThan($width(60), $width(12));
    }

    public function testTheSameLogGivesTheSameNumbers(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 20, 20, 8);
        self::assertEquals(StepAnalysis::of([$x], [$y], 1000), StepAnalysis::of([$x], [$y], 1000));
    }

    public function testScaleOfTheStickDoesNotMatterAndGainShowsAsSteadyValue(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 30, 30, 8);
        $one = StepAnalysis::of([$x], [$y], 1000);
        $half = StepAnalysis::of([$x], [array_map(static fn (float $v): float => 0.8 * $v, $y)], 1000);
        self::assertEqualsWithDelta(0.8 * $one->numbers->steady, $half->numbers->steady, 0.01);
        $confidence = Confidence::in($half, 0, 100);
        self::assertNotSame(Grade::Firm, $confidence->grade);
        self::assertSame(ConfidenceReason::SteadyOff, $confidence->reasons[0]->code);
        self::assertEqualsWithDelta(0.8, $confidence->reasons[0]->figures['steady'], 0.02);
        self::assertNotNull($confidence->flyInstead);
    }

    public function testAStillStickGivesNothingAndSaysWhy(): void
    {
        self::assertExcludedFor(Exclusion::TooStill, array_fill(0, 20000, 1.0), array_fill(0, 20000, 1.0));
    }

    public function testRotationThatDoesNotFollowIsRejectedForThatReason(): void
    {
        [$x] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 20, 20, 1);
        [$other] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 20, 20, 77);
        self::assertExcludedFor(Exclusion::Astray, $x, $other);
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     */
    private static function assertExcludedFor(Exclusion $why, array $x, array $y): void
    {
        try {
            StepAnalysis::of([$x], [$y], 1000);
            self::fail('It was taken for a response.');
        } catch (NoStepResponse $e) {
            self::assertSame(ConfidenceReason::NothingUsed, $e->reason->code);
            $excluded = $e->reason->figures['excluded'] ?? [];
            self::assertIsArray($excluded);
            self::assertInstanceOf(Fact::class, $excluded[0]);
            self::assertEquals(Fact::of($why), $excluded[0]->figures['why']);
            self::assertGreaterThan(10, $excluded[0]->figures['count']);
        }
    }

    public function testWindowsNeverSpanAGap(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 24, 25, 3);
        $whole = StepAnalysis::of([$x], [$y], 1000)->used;
        $parts = StepAnalysis::of(array_chunk($x, 6000), array_chunk($y, 6000), 1000);
        self::assertLessThan($whole, $parts->used);
        self::assertEqualsWithDelta((new KnownLoop(70, 0.5, 0.003))->peak(), $parts->numbers->peak, 0.03);
    }

    public function testNumbersOfAKnownCurve(): void
    {
        $loop = new KnownLoop(50, 0.5, 0.0);
        $values = [];
        for ($i = 0; $i <= 1000; ++$i) {
            $values[] = $loop->step($i * 0.0005);
        }
        $n = (new StepCurve(0.0005, $values))->numbers();
        self::assertEqualsWithDelta($loop->peak(), $n->peak, 1e-4);
        self::assertEqualsWithDelta((1e3 * \M_PI) / (50 * sqrt(0.75)), $n->peakMs, 0.1);
        self::assertEqualsWithDelta(1e3 * $loop->delayS(), $n->delayMs, 0.01);
        self::assertEqualsWithDelta(1.0, $n->steady, 1e-3);
        // Rise 10–90 % of ζ = 0.5: 1.64/ωn (Franklin, Powell and Emami-Naeini, fig. 3.24).
        self::assertEqualsWithDelta((1.64 / 50) * 1e3, $n->riseMs, 0.4);
        self::assertNotNull($n->settlingMs);
        self::assertEqualsWithDelta(105.5, $n->settlingMs, 2.0);
    }

    /** One reason costs a grade, two cost firm and fair; each begins where it says. */
    public function testEachReasonCostsItsGrade(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 40, 20, 8);
        $step = StepAnalysis::of([$x], [$y], 1000);
        $of = static fn (float $ff, float $other, ?float $dSpread): Confidence => Confidence::in($step, $ff, $other, $dSpread);
        $codes = static fn (Confidence $c): array => array_column($c->reasons, 'code');

        self::assertEquals(
            [Grade::Firm, [], null],
            [$of(0.1, 100, 0.15)->grade, $of(0.1, 100, 0.15)->reasons, $of(0.1, 100, 0.15)->flyInstead],
        );
        foreach (
            [
                [$of(0.11, 100, null), Grade::Fair, [ConfidenceReason::FeedForwardOn], FlyInstead::WithoutFeedForward],
                [$of(0.0, 100, 0.16), Grade::Fair, [ConfidenceReason::DVaried], FlyInstead::WithSteadyD],
                [
                    $of(0.2, 100, 0.2),
                    Grade::Weak,
                    [ConfidenceReason::FeedForwardOn, ConfidenceReason::DVaried],
                    FlyInstead::WithoutFeedForwardAndAddedD,
                ],
                [$of(0.0, 14.9, null), Grade::Firm, [ConfidenceReason::OneAxisOnly], null],
                [$of(0.0, 15.1, null), Grade::Firm, [], null],
            ] as $i => [$confidence, $grade, $reasons, $instead]
        ) {
            self::assertSame([$grade, $reasons, $instead], [$confidence->grade, $codes($confidence), $confidence->flyInstead], "case $i");
        }
    }

    public function testFewWindowsCostAGradeAndVeryFewTwo(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 10, 40, 8);
        foreach (
            [[4.5, 5, Grade::Weak], [5.0, 6, Grade::Fair], [9.5, 15, Grade::Fair], [10.0, 16, Grade::Firm]] as [$seconds, $windows, $grade]
        ) {
            $n = (int) (1000 * $seconds);
            $step = StepAnalysis::of([\array_slice($x, 0, $n)], [\array_slice($y, 0, $n)], 1000);
            self::assertSame($windows, $step->used, "in $seconds s");
            $confidence = Confidence::in($step, 0, 100);
            self::assertSame($grade, $confidence->grade, "$windows windows");
            self::assertEquals(
                $windows < 16 ? [ConfidenceReason::FewWindows] : [],
                array_column($confidence->reasons, 'code'),
                'nothing else is against it',
            );
        }
    }

    /** Where the curve settles off 1 by more than a fifth, that alone makes it weak. */
    public function testAStepThatSettlesFarOffIsWeak(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 12, 26, 8);
        foreach ([[0.96, Grade::Firm], [0.88, Grade::Fair], [0.7, Grade::Weak]] as [$gain, $grade]) {
            $step = StepAnalysis::of([$x], [array_map(static fn (float $v): float => $gain * $v, $y)], 1000);
            self::assertSame($grade, Confidence::in($step, 0, 100)->grade, "settles at $gain");
        }
    }
}
