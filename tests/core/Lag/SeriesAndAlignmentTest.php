<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Lag;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\Lag\LagSeries;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\StepRanking;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
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

    private static function lag(float $ms, float $iqr): AxisLag
    {
        return AxisLag::fromArray(Stored::of(['ms' => $ms, 'iqr_ms' => $iqr, 'windows' => 20]));
    }

    /** What a thumb might do, deg/s; smooth, and of no period within a window. */
    private static function stick(float $t): float
    {
        return 140 * sin(3.1 * $t) + 90 * sin(8.7 * $t + 1) + 60 * sin(17.3 * $t + 2) + 30 * sin(31.1 * $t);
    }
}
