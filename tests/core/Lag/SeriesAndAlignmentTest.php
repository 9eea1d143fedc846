<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Lag;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\Lag\LagDoubt;
use Ortholex\Core\Lag\LagSeries;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\StepRanking;
use Ortholex\Tests\Cases;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Several flights beside each other: a line through their lags, and who comes first. */
final class SeriesAndAlignmentTest extends TestCase
{
    /** @return iterable<string, array{float, float}> slope ms per step, crossing */
    public static function lines(): iterable
    {
        yield 'steep' => [-12.0, 0.9];
        yield 'gentle' => [-2.5, 1.3];
        yield 'at the first' => [-6.0, 0.45];
    }

    #[DataProvider('lines')]
    public function testALineWithoutNoiseIsFoundExactly(float $slope, float $crossing): void
    {
        $flights = [];
        foreach ([1.5, 0.3, 0.9, 0.6, 1.2] as $value) {
            $flights[] = ['value' => $value, 'lag' => self::lag($slope * ($value - $crossing), 0.2)];
        }
        $series = LagSeries::of($flights);
        self::assertNotNull($series);
        self::assertEqualsWithDelta($slope, $series->slope, 1e-9);
        self::assertNotNull($series->crossing);
        self::assertEqualsWithDelta($crossing, $series->crossing[0], 1e-9);
        self::assertLessThanOrEqual($series->crossing[0], $series->crossing[1]);
        self::assertGreaterThanOrEqual($series->crossing[0], $series->crossing[2]);
        self::assertSame([0.3, 0.6, 0.9, 1.2, 1.5], array_column($series->steps, 'value'), 'by rising value');
        self::assertEqualsWithDelta($crossing, $series->recommended, 0.2 / abs($slope) + 1e-3);
    }

    public function testOneFlightFlownBadlyDoesNotTurnTheLine(): void
    {
        $flights = [];
        foreach ([0.2, 0.4, 0.6, 0.8, 1.0, 1.2, 1.4] as $i => $value) {
            $flights[] = ['value' => $value, 'lag' => self::lag(-8.0 * ($value - 0.9) + (3 === $i ? 25.0 : 0.0), 0.2)];
        }
        $series = LagSeries::of($flights);
        self::assertNotNull($series);
        self::assertEqualsWithDelta(-8.0, $series->slope, 0.5, 'the median of slopes is not moved by one');
    }

    public function testTheSameFlightsInAnyOrderGiveTheSame(): void
    {
        $dice = new Lcg(50);
        $flights = [];
        foreach ([0.3, 0.6, 0.9, 1.2] as $value) {
            $flights[] = ['value' => $value, 'lag' => self::lag(-9 * ($value - 0.8) + 0.4 * $dice->next(), 0.5)];
        }
        self::assertEquals(LagSeries::of($flights), LagSeries::of(array_reverse($flights)));
        self::assertEquals(LagSeries::of($flights), LagSeries::of([$flights[2], $flights[0], $flights[3], $flights[1]]));
    }

    public function testWiderSpreadGivesAWiderCrossing(): void
    {
        $width = static function (float $iqr): float {
            $flights = [];
            foreach ([0.3, 0.6, 0.9, 1.2, 1.5] as $value) {
                $flights[] = ['value' => $value, 'lag' => self::lag(-6 * ($value - 0.9), $iqr)];
            }
            $crossing = LagSeries::of($flights)->crossing ?? [0.0, 0.0, 0.0];

            return $crossing[2] - $crossing[1];
        };
        self::assertGreaterThan($width(0.3), $width(1.0));
        self::assertGreaterThan($width(1.0), $width(3.0));
    }

    public function testWhereLagRisesOrStaysNothingCrosses(): void
    {
        foreach ([0.0, 3.0] as $slope) {
            $flights = [];
            foreach ([0.3, 0.6, 0.9] as $value) {
                $flights[] = ['value' => $value, 'lag' => self::lag(5 + $slope * $value, 0.2)];
            }
            $series = LagSeries::of($flights);
            self::assertNotNull($series);
            self::assertNull($series->crossing);
            self::assertSame(0.9, $series->recommended, 'the highest of those flown that still lags');
        }
    }

    public function testWhatASeriesDoesNotTellItSays(): void
    {
        self::assertSame([], self::series([6.0, 3.0, 0.0, -3.0, -6.0])?->doubts);
        self::assertSame([LagDoubt::SmallMoves], self::series([6.0, 3.0, 0.0, -3.0, -6.0], moves: 30.0)?->doubts);
        self::assertSame([LagDoubt::FewWindows], self::series([6.0, 3.0, 0.0, -3.0, -6.0], windows: 4)?->doubts);
        self::assertContains(LagDoubt::NoLine, self::series([9.0, 1.0, 4.0, -6.0, -4.0])->doubts ?? []);
        self::assertSame([LagDoubt::Beyond], self::series([12.0, 9.0, 6.0])?->doubts);
        $wide = self::series([6.0, 3.0, 0.0, -3.0, -6.0], 60.0);
        self::assertContains(LagDoubt::Wide, $wide->doubts ?? []);
        self::assertNull($wide?->recommended);
    }

    /** Where a craft comes in time is known in closed form: what the line says holds it nine times of ten. */
    #[Group('slow')]
    public function testTheFeedForwardThatIsInTimeLiesInItsInterval(): void
    {
        $n = $held = 0;
        foreach ([[1.0, 25.0], [1.5, 20.0]] as [$b, $p]) {
            $loop = new KnownFeedForward($b, $p);
            $truth = null;
            for ($seed = 1; $seed <= Cases::many(5, 3); ++$seed) {
                $flights = [];
                foreach ([0.3, 0.6, 0.9, 1.2, 1.5] as $i => $k) {
                    [$x, $y] = $loop->fly($k, 25, 300, 150, 10 * $seed + $i);
                    $lag = AxisLag::of([$x], [$y], 500);
                    self::assertNotNull($lag);
                    $flights[] = ['value' => $k, 'lag' => $lag];
                    $truth ??= $loop->inTime($loop->fly(1, 120, 300, 0, 77)[0], $lag->bandHz);
                }
                $crossing = LagSeries::of($flights)?->crossing;
                self::assertNotNull($crossing);
                self::assertEqualsWithDelta($truth, $crossing[0], 0.12);
                ++$n;
                $held += $truth >= $crossing[1] && $truth <= $crossing[2] ? 1 : 0;
            }
        }
        self::assertGreaterThanOrEqual(0.75 * $n, $held, 'a nominal 90 %');
    }

    public function testOneValueAloneIsNoSeries(): void
    {
        self::assertNull(LagSeries::of([]));
        self::assertNull(LagSeries::of([['value' => 0.5, 'lag' => self::lag(3.0, 0.2)]]));
        self::assertNull(
            LagSeries::of([['value' => 0.5, 'lag' => self::lag(3.0, 0.2)], ['value' => 0.5, 'lag' => self::lag(3.2, 0.2)]]),
            'the same value twice',
        );
    }

    public function testTheLagOfAnAxisIsItsDelayInEveryWindow(): void
    {
        foreach ([500.0, 1000.0, 2000.0] as $rate) {
            foreach ([0.0, 4.0, 11.0, 30.0] as $ms) {
                $setpoint = $measured = [];
                for ($i = 0, $n = (int) (14 * $rate); $i < $n; ++$i) {
                    $setpoint[] = self::stick($i / $rate);
                    $measured[] = self::stick($i / $rate - $ms / 1e3);
                }
                $lag = AxisLag::of([$setpoint], [$measured], $rate);
                self::assertNotNull($lag);
                self::assertEqualsWithDelta($ms, $lag->ms, 0.15, "$rate Hz");
                self::assertLessThan(0.5, $lag->iqrMs);
                self::assertGreaterThanOrEqual(8, $lag->windows);
                self::assertEquals($lag->rounded(), AxisLag::fromArray(Stored::of($lag->rounded()->toArray())));
            }
        }
    }

    public function testAStillStickOneTooLateAndOneUnrelatedHaveNoLag(): void
    {
        $still = array_fill(0, 8000, 3.0);
        self::assertNull(AxisLag::of([$still], [$still], 1000));
        $moving = array_map(static fn (int $i): float => self::stick($i / 1000), range(0, 9999));
        $later = array_map(static fn (int $i): float => self::stick($i / 1000 - 0.4), range(0, 9999));
        self::assertNull(AxisLag::of([$moving], [$later], 1000), 'further than a tenth of a second is nothing that follows');
        $dice = new Lcg(51);
        self::assertNull(AxisLag::of([$moving], [array_map(static fn (): float => 80 * $dice->normal(), $moving)], 1000));
        self::assertNull(AxisLag::of([], [], 1000));
        self::assertNull(AxisLag::of([\array_slice($moving, 0, 500)], [\array_slice($moving, 0, 500)], 1000), 'shorter than a window');
    }

    public function testWhoOverlapsSharesAPlaceAndWhoIsUntoldHasNone(): void
    {
        $rows = StepRanking::of([
            'c' => self::flight(30.0, [29.0, 31.0]),
            'a' => self::flight(18.0, [17.0, 19.0]),
            'untold' => self::flight(null, null, Grade::None),
            'b' => self::flight(18.5, [17.6, 19.4]),
            'd' => self::flight(40.0, null),
        ]);
        self::assertSame(['a', 'b', 'c', 'd', 'untold'], array_map(static fn (StepRanking $r): string => $r->name, $rows));
        self::assertSame([1, 1, 3, 4, null], array_map(static fn (StepRanking $r): ?int => $r->place, $rows));
        // The second is as wide as both: it shares the first's place, the third does not, as it overlaps with the second alone.
        $rows = StepRanking::of([
            'wide' => self::flight(20.0, [10.0, 30.0]),
            'narrow' => self::flight(19.0, [18.5, 19.5]),
            'far' => self::flight(26.0, [25.0, 27.0]),
        ]);
        self::assertSame([1, 1, 3], array_map(static fn (StepRanking $r): ?int => $r->place, $rows));
        self::assertSame([], StepRanking::of([]));
    }

    /**
     * @param array{float, float}|null $interval
     *
     * @return array{error_ms: float|null, interval: array{float, float}|null, grade: Grade}
     */
    private static function flight(?float $ms, ?array $interval, Grade $grade = Grade::Firm): array
    {
        return ['error_ms' => $ms, 'interval' => $interval, 'grade' => $grade];
    }

    /** @param list<float> $lags */
    private static function series(array $lags, float $iqr = 0.2, int $windows = 20, float $moves = 120.0): ?LagSeries
    {
        $flights = [];
        foreach ($lags as $i => $ms) {
            $flights[] = ['value' => 0.3 * ($i + 1), 'lag' => self::lag($ms, $iqr, $windows, $moves)];
        }

        return LagSeries::of($flights);
    }

    private static function lag(float $ms, float $iqr, int $windows = 20, float $moves = 120.0): AxisLag
    {
        $spread = ['iqr_ms' => $iqr, 'error_ms' => $iqr / 4, 'windows' => $windows];

        return AxisLag::fromArray(Stored::of(['ms' => $ms, ...$spread, 'band_hz' => [1.0, 6.0], 'move_dps' => $moves]));
    }

    /** What a thumb might do, deg/s; smooth, and of no period within a window. */
    private static function stick(float $t): float
    {
        return 140 * sin(3.1 * $t) + 90 * sin(8.7 * $t + 1) + 60 * sin(17.3 * $t + 2) + 30 * sin(31.1 * $t);
    }
}
