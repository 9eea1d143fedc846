<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Step;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Step\Confidence\Confidence;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\Exclusion;
use Ortholex\Core\Step\LoopModel;
use Ortholex\Core\Step\NoStepResponse;
use Ortholex\Core\Step\StepAnalysis;
use Ortholex\Core\Step\StepCurve;
use Ortholex\Core\Step\StepRanking;
use Ortholex\Core\Step\StepWindow;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Windows one by one, struck out, and several flights ranked by what they lose to the step. */
final class StepWindowsTest extends TestCase
{
    public function testEveryWindowIsToldUsedOrWithItsReason(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 20, 20, 8);
        // Hands off in the middle.
        $x = array_values(array_replace($x, array_fill(8000, 5000, 0.0)));
        $y = array_values(array_replace($y, array_fill(8000, 5000, 0.0)));
        $result = StepAnalysis::of([$x], [$y], 1000, [100.0]);
        self::assertCount($result->used + array_sum($result->excluded), $result->windows);
        self::assertCount($result->used, array_filter($result->windows, static fn (StepWindow $w): bool => null === $w->why));
        self::assertSame(100.0, $result->windows[0]->atS, 'in the log\'s own time');
        $still = array_filter($result->windows, static fn (StepWindow $w): bool => Exclusion::TooStill === $w->why);
        self::assertNotEmpty($still);
        foreach ($still as $w) {
            self::assertGreaterThan(107.9, $w->atS);
            self::assertLessThan(113.0, $w->atS + $result->windowS);
        }
    }

    public function testAStruckWindowIsLeftOutAndSaid(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 30, 20, 8);
        // Something hit the craft at 15 s.
        $y = array_map(
            static fn (float $v, int $i): float => $v + ($i >= 15000 && $i < 15150 ? 900 * sin((($i - 15000) * \M_PI) / 150) : 0.0),
            $y,
            array_keys($y),
        );
        $whole = StepAnalysis::of([$x], [$y], 1000);
        $struck = array_column(
            array_filter($whole->windows, static fn (StepWindow $w): bool => $w->atS <= 15.15 && $w->atS + $whole->windowS >= 15.0),
            'atS',
        );
        self::assertNotEmpty($struck);
        $without = StepAnalysis::of([$x], [$y], 1000, [], $struck);
        self::assertSame(\count($struck), $without->excluded[Exclusion::ByHand->value]);
        self::assertSame($whole->used - \count($struck), $without->used);
        self::assertLessThan(
            $whole->intervals['peak'][1] - $whole->intervals['peak'][0],
            $without->intervals['peak'][1] - $without->intervals['peak'][0],
            'what hit it no longer widens the interval',
        );
        self::assertContainsEquals(
            Fact::of(ConfidenceReason::ExcludedByHand, windows: \count($struck)),
            Confidence::in($without, 0, 100)->reasons,
        );
        self::assertEquals($whole, StepAnalysis::of([$x], [$y], 1000, [], []), 'taken back in, all is as before');
    }

    public function testStrikingMuchOutCostsBelief(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 40, 20, 8);
        $whole = StepAnalysis::of([$x], [$y], 1000);
        $half = array_values(array_filter(array_column($whole->windows, 'atS'), static fn (float $s): bool => $s > 20));
        self::assertSame(Grade::Firm, Confidence::in($whole, 0, 100)->grade);
        self::assertNotSame(Grade::Firm, Confidence::in(StepAnalysis::of([$x], [$y], 1000, [], $half), 0, 100)->grade);
    }

    #[DataProvider('rates')]
    public function testAWindowAloneShowsTheKnownStepWhereTheStickMoves(float $rate): void
    {
        $loop = new KnownLoop(80, 0.45, 0.003);
        [$x, $y] = $loop->fly($rate, 20, 30, 9);
        $whole = StepAnalysis::of([$x], [$y], $rate);
        $model = LoopModel::known($whole->loop->parameters());
        $shares = $peaks = [];
        foreach ($whole->windows as $w) {
            $first = (int) round($w->atS * $rate);
            $frame = StepAnalysis::window(
                \array_slice($x, $first, (int) round($whole->windowS * $rate)),
                \array_slice($y, $first, (int) round($whole->windowS * $rate)),
                $rate,
                $model,
                $whole->noise,
                $whole->bandHz,
            );
            $shares[] = $frame->ownShare;
            $peaks[] = $frame->curve->numbers()->peak;
            self::assertCount(\count($frame->setpoint), $frame->rate);
        }
        self::assertGreaterThan(0.1, min($shares));
        self::assertLessThanOrEqual(1.0, max($shares));
        sort($peaks);
        self::assertEqualsWithDelta($loop->peak(), $peaks[intdiv(\count($peaks), 2)], 0.06);
    }

    /** @return iterable<string, array{float}> */
    public static function rates(): iterable
    {
        foreach ([500.0, 1000.0, 2000.0, 8000.0] as $rate) {
            yield "$rate Hz" => [$rate];
        }
    }

    public function testAStillWindowBorrowsTheFlightsCurve(): void
    {
        [$x, $y] = (new KnownLoop(80, 0.45, 0.003))->fly(1000, 20, 20, 9);
        $whole = StepAnalysis::of([$x], [$y], 1000);
        $g = new KnownFlight(4);
        $still = StepAnalysis::window(
            array_map(static fn (): float => 0.05 * $g->gauss(), range(1, 2048)),
            array_map(static fn (): float => 15 * $g->gauss(), range(1, 2048)),
            1000,
            $whole->loop,
            $whole->noise,
            $whole->bandHz,
        );
        self::assertLessThan(0.02, $still->ownShare);
        self::assertEqualsWithDelta($whole->numbers->peak, $still->curve->numbers()->peak, 0.06);
    }

    public function testATooShortWindowAndABrokenLoopAreRefused(): void
    {
        $loop = StepAnalysis::of(
            ...[...array_map(static fn (array $s): array => [$s], (new KnownLoop(80, 0.45, 0.003))->fly(1000, 12, 20, 9)), 1000],
        )->loop;
        try {
            StepAnalysis::window([1.0, 2.0], [1.0, 2.0], 1000, $loop, [], 20);
            self::fail('two samples are no window');
        } catch (NoStepResponse $e) {
            self::assertEquals(Fact::of(ConfidenceReason::WindowTooShort, samples: 2), $e->reason);
        }
        $this->expectException(SignalError::class);
        LoopModel::known([1, 2, 'x', 4, 5, 6]);
    }

    public function testLimitsOfSizeSortTheWindows(): void
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly(1000, 30, 20, 8);
        $all = StepAnalysis::sizes([$x], [$y], 1000, [1.0, 2.0]);
        self::assertSame(0, $all['small']->windows + $all['medium']->windows);
        self::assertNull($all['small']->peak);
        $some = StepAnalysis::sizes([$x], [$y], 1000, [200.0, 300.0]);
        self::assertSame($all['large']->windows, array_sum(array_column($some, 'windows')));
        self::assertSame(200.0, $some['small']->uptoDps);
        self::assertEquals(
            StepAnalysis::of([$x], [$y], 1000)->bySize,
            StepAnalysis::sizes([$x], [$y], 1000, null),
            'thirds of the largest by default',
        );
    }

    /** A pure delay loses its own length, a first-order lag its time constant: both closed forms. */
    public function testWhatIsLostToAStepInClosedForm(): void
    {
        $at = static fn (\Closure $y): float => (new StepCurve(
            0.0005,
            array_map(static function (int $i) use ($y): float {
                $v = $y($i * 0.0005);

                return \is_float($v) ? $v : throw new \LogicException('no number');
            }, range(0, 2000)),
        ))->numbers()->errorMs;
        self::assertEqualsWithDelta(30.0, $at(static fn (float $t): float => $t < 0.03 ? 0.0 : 1.0), 0.6);
        self::assertEqualsWithDelta(40.0, $at(static fn (float $t): float => 1 - exp(-$t / 0.04)), 1.5);
        self::assertEqualsWithDelta(
            40.0,
            $at(static fn (float $t): float => 0.8 * (1 - exp(-$t / 0.04))),
            1.5,
            'against its own steady value',
        );
        $ringing = new KnownLoop(60, 0.2, 0.0);
        $damped = new KnownLoop(60, 0.7, 0.0);
        self::assertGreaterThan($at($damped->step(...)), $at($ringing->step(...)), 'ringing costs');
        self::assertSame(0.0, (new StepCurve(0.001, array_fill(0, 500, 0.0)))->numbers()->errorMs);
    }

    public function testRankingSharesPlacesWhereIntervalsOverlap(): void
    {
        $rows = StepRanking::of([
            'slow' => ['error_ms' => 30.0, 'interval' => [29.0, 31.0], 'grade' => Grade::Firm],
            'quick' => ['error_ms' => 20.0, 'interval' => [19.0, 21.0], 'grade' => Grade::Firm],
            'alike' => ['error_ms' => 20.8, 'interval' => [20.2, 22.0], 'grade' => Grade::Fair],
            'mute' => ['error_ms' => 5.0, 'interval' => null, 'grade' => Grade::None],
            'bare' => ['error_ms' => 30.5, 'interval' => null, 'grade' => Grade::Weak],
        ]);
        self::assertSame(
            ['quick' => 1, 'alike' => 1, 'slow' => 3, 'bare' => 3, 'mute' => null],
            array_combine(
                array_map(static fn (StepRanking $r): string => $r->name, $rows),
                array_map(static fn (StepRanking $r): ?int => $r->place, $rows),
            ),
        );
        self::assertSame([], StepRanking::of([]));
    }
}
