<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Signal;

use Ortholex\Core\Signal\HannWindow;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class StatisticsTest extends TestCase
{
    /**
     * Figures of numpy.quantile (1.24.2), which interpolates in the same way by default.
     *
     * @return iterable<string, array{list<float>, float, float}>
     */
    public static function quantiles(): iterable
    {
        $seven = [3.0, 1.0, 4.0, 1.5, 9.0, 2.6, 5.0];
        yield 'lowest' => [$seven, 0.0, 1.0];
        yield 'a tenth' => [$seven, 0.1, 1.3];
        yield 'lower quartile' => [$seven, 0.25, 2.05];
        yield 'middle' => [$seven, 0.5, 3.0];
        yield 'upper quartile' => [$seven, 0.75, 4.5];
        yield 'nine tenths' => [$seven, 0.9, 6.6];
        yield 'highest' => [$seven, 1.0, 9.0];
        yield 'between two' => [[2.0, 8.0], 0.5, 5.0];
        yield 'one alone' => [[7.0], 0.31, 7.0];
        yield 'with equals' => [[2.0, 2.0, 2.0, 10.0], 0.5, 2.0];
    }

    /** @return iterable<string, array{\Closure(int): float}> how a long list runs */
    public static function runs(): iterable
    {
        $dice = new Lcg(73);
        yield 'at random' => [static fn (int $i): float => (float) $dice->whole(-1_000_000, 1_000_000) / 64];
        yield 'a few values, often' => [static fn (int $i): float => (float) $dice->whole(0, 3)];
        yield 'one value' => [static fn (int $i): float => 7.5];
        yield 'rising' => [static fn (int $i): float => (float) $i];
        yield 'falling' => [static fn (int $i): float => -1.5 * $i];
        yield 'up and down again' => [static fn (int $i): float => (float) min($i, 1500 - $i)];
        yield 'in teeth' => [static fn (int $i): float => (float) ($i % 17)];
        yield 'a few far out' => [static fn (int $i): float => 0 === $i % 97 ? \INF : (float) -$i];
    }

    /** @param \Closure(int): float $run */
    #[DataProvider('runs')]
    public function testOfLongListsTheyAreThoseOfTheSortedOne(\Closure $run): void
    {
        foreach ([199, 200, 201, 512, 1500] as $count) {
            $values = array_map($run, range(0, $count - 1));
            $sorted = $values;
            sort($sorted);
            foreach ([0.0, 0.01, 0.25, 0.5, 0.8, 0.9, 0.999, 1.0] as $share) {
                $is = Statistics::quantileOfSorted($sorted, $share);
                if (!is_nan($is)) {
                    self::assertSame($is, Statistics::quantile($values, $share), "$share of $count");
                }
            }
        }
    }

    /** @param list<float> $values */
    #[DataProvider('quantiles')]
    public function testQuantilesAreAsElsewhere(array $values, float $share, float $is): void
    {
        self::assertEqualsWithDelta($is, Statistics::quantile($values, $share), 1e-12);
        sort($values);
        self::assertEqualsWithDelta($is, Statistics::quantileOfSorted($values, $share), 1e-12);
    }

    public function testAQuantileRisesWithItsShareAndStaysWithinTheValues(): void
    {
        $dice = new Lcg(77);
        for ($round = 0; $round < 60; ++$round) {
            $values = array_map(static fn (): float => 100 * $dice->next(), range(1, $dice->whole(1, 40)));
            $before = min($values);
            for ($share = 0.0; $share <= 1.0; $share += 0.07) {
                $at = Statistics::quantile($values, $share);
                self::assertGreaterThanOrEqual($before - 1e-12, $at);
                self::assertLessThanOrEqual(max($values), $at);
                $before = $at;
            }
        }
    }

    public function testMeanAndDeviationByHand(): void
    {
        // 2, 4, 4, 4, 5, 5, 7, 9: mean 5, and the squares of what is off it sum up to 32.
        $values = [2.0, 4.0, 4.0, 4.0, 5.0, 5.0, 7.0, 9.0];
        self::assertSame(5.0, Statistics::mean($values));
        self::assertEqualsWithDelta(2.0, Statistics::deviation($values), 1e-12);
        self::assertSame(4.5, Statistics::median($values));
        self::assertSame(0.0, Statistics::deviation([3.0, 3.0, 3.0]));
    }

    public function testShiftAndScaleGoThrough(): void
    {
        $dice = new Lcg(5);
        for ($round = 0; $round < 50; ++$round) {
            $values = array_map(static fn (): float => $dice->next(), range(1, 25));
            [$scale, $shift] = [0.1 + 5 * abs($dice->next()), 40 * $dice->next()];
            $moved = array_map(static fn (float $v): float => $scale * $v + $shift, $values);
            self::assertEqualsWithDelta($scale * Statistics::mean($values) + $shift, Statistics::mean($moved), 1e-9);
            self::assertEqualsWithDelta($scale * Statistics::deviation($values), Statistics::deviation($moved), 1e-9);
            self::assertEqualsWithDelta($scale * Statistics::median($values) + $shift, Statistics::median($moved), 1e-9);
        }
    }

    /** @return iterable<string, array{\Closure(): float}> */
    public static function ofNothing(): iterable
    {
        yield 'mean' => [static fn (): float => Statistics::mean([])];
        yield 'median' => [static fn (): float => Statistics::median([])];
        yield 'deviation' => [static fn (): float => Statistics::deviation([])];
        yield 'quantile' => [static fn (): float => Statistics::quantile([], 0.3)];
    }

    /** @param \Closure(): float $ask */
    #[DataProvider('ofNothing')]
    public function testOfNothingThereIsNoFigure(\Closure $ask): void
    {
        $this->expectException(SignalError::class);
        $ask();
    }

    public function testFewerSamplesKeepTheMeanAndWhatIsSlow(): void
    {
        $left = Statistics::decimated([1.0, 2.0, 3.0, 4.0, 5.0, 6.0, 100.0], 3);
        self::assertSame([2.0, 5.0], $left, 'a part that is not full is left out');
        self::assertSame([1.0, 2.0], Statistics::decimated([1.0, 2.0], 1));
        self::assertSame([1.0, 2.0], Statistics::decimated([1.0, 2.0], 0));
        self::assertSame([], Statistics::decimated([1.0, 2.0], 5));
        $slow = array_map(static fn (int $i): float => sin($i / 400), range(0, 3999));
        foreach ([2, 4, 8] as $factor) {
            $fewer = Statistics::decimated($slow, $factor);
            self::assertCount(4000 / $factor, $fewer);
            foreach ($fewer as $i => $v) {
                // The mean of a run stands at its middle.
                self::assertEqualsWithDelta(sin(($i * $factor + ($factor - 1) / 2) / 400), $v, 1e-4);
            }
        }
    }

    public function testAHannWindowHasItsKnownSums(): void
    {
        foreach ([8, 64, 1000, 2048] as $n) {
            $window = HannWindow::ofSize($n);
            self::assertCount($n, $window->weights);
            self::assertEqualsWithDelta(0.375 * $n, $window->power, 1e-9 * $n, 'three eighths of its length');
            self::assertEqualsWithDelta(0.5 * $n, array_sum($window->weights), 1e-9 * $n);
            self::assertSame(0.0, $window->weights[0]);
            self::assertEqualsWithDelta(1.0, $window->weights[intdiv($n, 2)], 1e-12);
            for ($i = 1; $i < $n; ++$i) {
                self::assertEqualsWithDelta($window->weights[$n - $i], $window->weights[$i], 1e-12);
            }
        }
    }
}
