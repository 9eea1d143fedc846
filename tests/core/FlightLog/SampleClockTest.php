<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\FlightLog\TimeFault;
use Ortholex\Core\FlightLog\TimeFaultKind;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

final class SampleClockTest extends TestCase
{
    /** @return iterable<string, array{float, float}> rate and rounding of the stamps, s */
    public static function rates(): iterable
    {
        foreach ([500, 1000, 1600, 2000, 3200, 8000] as $rate) {
            foreach ([0.0, 1e-6, 1e-4, 1e-3] as $rounding) {
                yield "$rate Hz, stamps to $rounding s" => [(float) $rate, $rounding];
            }
        }
    }

    #[DataProvider('rates')]
    public function testRateIsFoundThroughRounding(float $rate, float $rounding): void
    {
        $clock = SampleClock::fromTimes(self::stamps(6000, $rate, $rounding));
        self::assertEqualsWithDelta($rate, $clock->rateHz, $rate * 0.002);
        self::assertSame([], $clock->faults);
        self::assertSame(6000, $clock->samples);
        self::assertCount(1, $clock->segments);
    }

    public function testAShortGapIsBridgedByAStraightLine(): void
    {
        $times = self::stamps(3000, 1000, 0);
        unset($times[1500], $times[1501], $times[1502]);
        $clock = SampleClock::fromTimes(array_values($times));
        self::assertCount(1, $clock->segments);
        self::assertSame(3000, $clock->samples);
        self::assertCount(1, $clock->gaps());
        self::assertEqualsWithDelta(1.499, $clock->gaps()[0]->atS, 1e-9);
        self::assertEqualsWithDelta(0.004, $clock->gaps()[0]->lengthS, 1e-9);
        $values = $clock
            ->arrange(Column::ofBytes(FlightLog::packFloats(array_map(static fn (float $t): float => 3 * $t, array_values($times)))))
            ->values();
        foreach ($values as $i => $v) {
            self::assertEqualsWithDelta((3 * $i) / 1000, $v, 2e-6);
        }
    }

    public function testALongGapStartsANewSegment(): void
    {
        $later = array_map(static fn (float $t): float => $t + 1.25, self::stamps(1000, 2000, 1e-6));
        $times = [...self::stamps(2000, 2000, 1e-6), ...$later];
        $clock = SampleClock::fromTimes($times);
        self::assertCount(2, $clock->segments);
        self::assertSame(3000, $clock->samples);
        self::assertEqualsWithDelta(1.25, $clock->segments[1]->startS, 1e-6);
        self::assertEqualsWithDelta(2000, $clock->rateHz, 0.5);
        self::assertEqualsWithDelta(1.25 + 999 / 2000, $clock->durationS(), 1e-4);
    }

    public function testOneBadStampBackwardsIsLeftOutAndReported(): void
    {
        $times = self::stamps(2000, 1000, 0);
        $times[700] = 0.1;
        $clock = SampleClock::fromTimes(array_values($times));
        self::assertSame(2000, $clock->samples);
        $back = array_values(array_filter($clock->faults, static fn (TimeFault $f): bool => TimeFaultKind::Back === $f->kind));
        self::assertCount(1, $back);
        self::assertSame(700, $back[0]->row);
        self::assertEqualsWithDelta(0.599, $back[0]->lengthS, 1e-9);
    }

    public function testARestartedClockGoesOnAsASegmentAfterTheFirst(): void
    {
        $clock = SampleClock::fromTimes([...self::stamps(2000, 1000, 0), ...self::stamps(500, 1000, 0)]);
        self::assertCount(2, $clock->segments);
        self::assertGreaterThan($clock->segments[0]->endS($clock->rateHz), $clock->segments[1]->startS);
        self::assertSame(TimeFaultKind::Back, $clock->faults[0]->kind);
    }

    public function testEqualStampsAreAFaultOnlyWhereRoundingDoesNotExplainThem(): void
    {
        $times = self::stamps(2000, 1000, 0);
        array_splice($times, 900, 0, [$times[900]]);
        $clock = SampleClock::fromTimes($times);
        self::assertSame(TimeFaultKind::Repeat, $clock->faults[0]->kind);
        self::assertSame(2000, $clock->samples);
        self::assertSame([], SampleClock::fromTimes(self::stamps(2000, 8000, 1e-3))->faults);
    }

    public function testTimeThatNeverMovesIsNoLog(): void
    {
        $this->expectException(LogError::class);
        SampleClock::fromTimes([1.0, 1.0, 1.0]);
    }

    /** @return list<float> */
    private static function stamps(int $count, float $rate, float $rounding): array
    {
        $times = [];
        for ($i = 0; $i < $count; ++$i) {
            $t = $i / $rate;
            $times[] = $rounding > 0 ? round(floor($t / $rounding + 1e-9) * $rounding, 9) : $t;
        }

        return $times;
    }

    public function testFiveMissingSamplesAreBridgedAndSixAreAGap(): void
    {
        foreach ([5 => 1, 6 => 2] as $missing => $segments) {
            $times = [];
            for ($i = 0; $i < 2000; ++$i) {
                $times[] = ($i < 1000 ? $i : $i + $missing) / 1000;
            }
            $clock = SampleClock::fromTimes($times);
            self::assertCount($segments, $clock->segments, "$missing missing");
            self::assertSame(5 === $missing ? 2005 : 2000, $clock->samples, "$missing missing");
            self::assertCount(1, $clock->gaps(), 'either way it is told');
        }
    }

    /** Stamps that come late by chance are no gaps, and what is truly missing still is. */
    #[TestWith([0.1])]
    #[TestWith([0.2])]
    #[TestWith([0.3])]
    public function testLateStampsInventNoSamples(float $jitter): void
    {
        $g = new KnownFlight(7);
        $all = $lacking = $late = [];
        for ($i = 0; $i < 20000; ++$i) {
            $t = ($i + $jitter * $g->gauss()) / 1000;
            $all[] = $t;
            if (500 !== $i % 1000) {
                $lacking[] = $t;
            }
            $late[] = ($i + ($g->next() < $jitter ? $g->next() : 0.0)) / 1000;
        }
        foreach ([$all, $late] as $times) {
            $clock = SampleClock::fromTimes($times);
            self::assertEqualsWithDelta(1000, $clock->rateHz, 0.5);
            self::assertEqualsWithDelta(20000, $clock->samples, 3);
            self::assertLessThan($times === $all ? 1 : 4, \count($clock->faults));
        }
        $clock = SampleClock::fromTimes($lacking);
        self::assertEqualsWithDelta(20000, $clock->samples, 1, 'twenty were missing');
        self::assertEqualsWithDelta(20, \count($clock->gaps()), 1);
    }

    /** Six significant digits: exact at first, then ten samples share a stamp. */
    public function testStampsMayGrowCoarser(): void
    {
        $times = array_map(static fn (int $i): float => (float) \sprintf('%.6g', 60 + $i / 2000), range(0, 119999));
        $clock = SampleClock::fromTimes($times);
        self::assertEqualsWithDelta(2000, $clock->rateHz, 0.1);
        self::assertSame(120000, $clock->samples);
        self::assertSame([], $clock->faults);
    }
}
