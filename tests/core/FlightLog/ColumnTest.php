<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\FlightLog\TimeFaultKind;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** One column of a log, however long; and how columns fall on an even grid. */
final class ColumnTest extends TestCase
{
    public function testAnyStretchOfAColumnIsWhatWasPutThere(): void
    {
        $dice = new Lcg(60);
        foreach ([4 => 'g*', 8 => 'e*'] as $size => $format) {
            $column = Column::spool($size);
            $all = [];
            // More than is held in memory, in pieces of any length.
            while (\count($all) < 40_000) {
                $piece = array_map(static fn (): float => (float) $dice->whole(-8000, 8000) / 8, range(1, $dice->whole(1, 900)));
                $column->append(pack($format, ...$piece));
                array_push($all, ...$piece);
            }
            self::assertSame(\count($all), $column->count);
            self::assertSame($all, $column->values());
            for ($round = 0; $round < 60; ++$round) {
                $first = $dice->whole(0, \count($all) - 1);
                $count = $dice->whole(0, 700);
                self::assertSame(\array_slice($all, $first, $count), $column->values($first, $count));
                self::assertSame($size * \count(\array_slice($all, $first, $count)), \strlen($column->bytes($first, $count)));
            }
            self::assertSame([], $column->values($column->count, 5), 'beyond the end there is nothing');
        }
    }

    /** Read in pieces, it is averaged as it would be whole, whatever the factor does to the pieces. */
    public function testAColumnIsAveragedAsItIsRead(): void
    {
        $dice = new Lcg(61);
        $values = array_map(static fn (): float => (float) $dice->whole(-8000, 8000) / 8, range(1, 50_003));
        $long = Column::spool(8);
        $long->append(pack('e*', ...$values));
        foreach ([$long, Column::ofBytes(FlightLog::packFloats($values))] as $column) {
            foreach ([1, 2, 3, 7, 16, 1000, 60_000] as $factor) {
                self::assertSame(Statistics::decimated($values, $factor), $column->decimated($factor), "by $factor");
            }
            self::assertSame(Statistics::decimated(\array_slice($values, 5, 33_333), 4), $column->decimated(4, 5, 33_333));
            self::assertSame([], $column->decimated(4, 50_001), 'less than one is none');
        }
    }

    /** More pieces than are joined at once. */
    public function testALongColumnIsWholeAndInOrder(): void
    {
        $column = Column::ofBytes(str_repeat(pack('g*', ...range(0.0, 1023.0)), 2300));
        self::assertSame(2300 * 1024, $column->count);
        $means = array_map(static fn (int $k): float => 4 * $k + 1.5, range(0, 255));
        $firsts = array_map(static fn (int $k): float => 4.0 * $k, range(0, 255));
        self::assertTrue(array_merge(...array_fill(0, 2300, $means)) === $column->decimated(4));
        self::assertTrue(array_merge(...array_fill(0, 2300, $firsts)) === $column->each(4));
    }

    public function testAColumnInMemoryReadsTheSame(): void
    {
        $values = [1.5, -2.25, 0.0, 1e6, -0.125];
        $column = Column::ofBytes(pack('g*', ...$values));
        self::assertSame($values, $column->values());
        self::assertSame([-2.25, 0.0], $column->values(1, 2));
        $column->append(pack('g', 7.0));
        self::assertSame([...$values, 7.0], $column->values(), 'and is appended to');
        self::assertSame([], Column::ofBytes('')->values());
    }

    /** @return iterable<string, array{float, list<int>, int}> rate, rows lost, samples expected */
    public static function holes(): iterable
    {
        yield 'none' => [1000.0, [], 2000];
        yield 'one' => [1000.0, [700], 2000];
        yield 'five in a row are bridged' => [1000.0, [300, 301, 302, 303, 304], 2000];
        yield 'single ones all over' => [500.0, [10, 99, 250, 777, 1500], 2000];
        yield 'many in a row are a gap' => [1000.0, range(600, 899), 1700];
    }

    /** @param list<int> $lost */
    #[DataProvider('holes')]
    public function testWhatIsMissingIsBridgedByALineOrCutsTheLog(float $rate, array $lost, int $samples): void
    {
        $times = $values = [];
        for ($i = 0; $i < 2000; ++$i) {
            if (!\in_array($i, $lost, true)) {
                $times[] = 5 + $i / $rate;
                $values[] = 0.5 * $i;
            }
        }
        $clock = SampleClock::fromTimes($times);
        self::assertEqualsWithDelta($rate, $clock->rateHz, 1e-6 * $rate);
        self::assertSame($samples, $clock->samples);
        $laid = $clock->arrange(Column::ofBytes(pack('g*', ...$values)))->values();
        self::assertCount($samples, $laid);
        foreach ($clock->segments as $segment) {
            $first = (int) round(($segment->startS - 5) * $rate);
            for ($i = 0; $i < $segment->count; ++$i) {
                // A line through a line is the line: every sample stands where its time says.
                self::assertEqualsWithDelta(0.5 * ($first + $i), $laid[$segment->first + $i], 1e-3);
            }
        }
        self::assertCount(\count($lost) > 5 && $samples < 2000 ? 2 : 1, $clock->segments);
        self::assertEqualsWithDelta(1999 / $rate, $clock->durationS(), 1e-6);
    }

    public function testAPassageOfTheClockIsTheClockOfAPassage(): void
    {
        $times = array_map(static fn (int $i): float => 2.0 + $i / 1000 + ($i >= 1500 ? 0.4 : 0.0), range(0, 3999));
        $clock = SampleClock::fromTimes($times);
        self::assertCount(2, $clock->segments);
        [$part, $first, $count] = $clock->between(3.0, 4.5);
        self::assertSame(1000, $first);
        self::assertSame($count, $part->samples);
        self::assertSame($clock->rateHz, $part->rateHz);
        self::assertEqualsWithDelta(3.0, $part->segments[0]->startS, 1e-9);
        self::assertCount(2, $part->segments, 'the gap lies within');
        self::assertCount(1, $part->gaps());
        [$whole, $from, $all] = $clock->between(-100.0, 100.0);
        self::assertSame([0, $clock->samples], [$from, $all]);
        self::assertEquals($clock->segments, $whole->segments);
    }

    public function testEachFaultOfTimeIsToldWithItsRow(): void
    {
        $times = array_map(static fn (int $i): float => $i / 1000, range(0, 1999));
        $times[500] = 0.1;
        $times[900] = $times[899];
        $faults = [];
        foreach (SampleClock::fromTimes(array_values($times))->faults as $fault) {
            $faults[$fault->row] = $fault->kind;
        }
        self::assertSame(TimeFaultKind::Back, $faults[500]);
        self::assertSame(TimeFaultKind::Repeat, $faults[900]);
    }

    public function testEveryTraceHasItsNameAndItsUnit(): void
    {
        foreach (Axis::cases() as $axis) {
            foreach ([Traces::setpoint($axis), Traces::measuredRate($axis), Traces::filteredRate($axis)] as $name) {
                self::assertSame('deg/s', Traces::unitOf($name));
                self::assertStringContainsString($axis->value, Traces::inWords($name));
            }
            foreach (Traces::TERMS as $term) {
                self::assertSame('%', Traces::unitOf(Traces::term($term, $axis)));
            }
        }
        foreach (['', 'roll', 'rate_roll_dps', 'setpoint_bank_dps', 'output__pct', 'RPM_1', 'throttle_pct ', 'term_x_roll'] as $name) {
            self::assertNull(Traces::unitOf($name), $name);
        }
        foreach (Traces::common(['output_front_left_pct']) as $name) {
            self::assertNotNull(Traces::unitOf($name), $name);
            self::assertNotSame('', Traces::inWords($name));
        }
    }

    public function testARateIsChosenByWhatItIsFor(): void
    {
        $both = ['rate_measured_roll_dps', 'rate_filtered_roll_dps', 'rate_filtered_pitch_dps'];
        self::assertSame('rate_measured_roll_dps', Traces::rateOfRotation($both, Axis::Roll));
        self::assertSame('rate_filtered_roll_dps', Traces::rateOfControl($both, Axis::Roll));
        self::assertSame('rate_filtered_pitch_dps', Traces::rateOfRotation($both, Axis::Pitch), 'where that alone was logged');
        self::assertNull(Traces::rateOfControl($both, Axis::Yaw));
        self::assertSame(['roll', 'pitch'], array_keys(Traces::ratesOfControl($both)));
    }
}
