<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\FlightLog\Reading\LogReader;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Rows are read by one pattern where they hold nothing but figures, and cell by cell where they do not: what is read must be the same. */
final class FiguresTest extends TestCase
{
    /** More than are parsed at once. */
    private const ROWS = 6000;

    private string $path = '';

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'log');
    }

    protected function tearDown(): void
    {
        @unlink($this->path);
    }

    /** @return iterable<string, array{string, float}> a figure as a program may write it, and what it says */
    public static function figures(): iterable
    {
        yield 'whole' => ['17', 17.0];
        yield 'leading noughts' => ['00012.50', 12.5];
        yield 'no nought before the point' => ['.5', 0.5];
        yield 'less than nought, none before the point' => ['-.5', -0.5];
        yield 'nothing behind the point' => ['5.', 5.0];
        yield 'a plus' => ['+7.25', 7.25];
        yield 'a power of ten' => ['1.25e2', 125.0];
        yield 'a power of ten with a plus' => ['125E+0', 125.0];
        yield 'a small power of ten' => ['-2500.e-1', -250.0];
        yield 'too small for any float' => ['1e-400', 0.0];
        yield 'more places than a float has' => ['0.1000000000000000055511151231257827', 0.1];
        yield 'more digits than a whole number has' => ['123456789012345678901', 123_456_789_012_345_678_901.0];
        yield 'blanks around' => [" \t21.5 ", 21.5];
    }

    #[DataProvider('figures')]
    public function testAFigureIsReadAsItIsMeantInEitherWay(string $written, float $meant): void
    {
        $all = $this->readWith(static fn (int $row): string => $written)->trace('rate_measured_roll_dps');
        self::assertCount(self::ROWS, $all);
        self::assertSame([self::narrow($meant)], array_values(array_unique($all)));

        // A blank line in each piece lets all of it be looked at cell by cell.
        $odd = $this->readWith(static fn (int $row): string => $written, static fn (int $row): string => 0 === $row % 100 ? "\n" : '');
        self::assertSame($all, $odd->trace('rate_measured_roll_dps'));
        self::assertCount($odd->clock->samples, $all);
    }

    /** @return iterable<string, array{string}> what begins as a figure does, and is none */
    public static function noFigures(): iterable
    {
        yield 'two points' => ['1.2.3'];
        yield 'two signs' => ['--5'];
        yield 'a sign behind' => ['5-'];
        yield 'two figures' => ['1 2'];
        yield 'only a point' => ['.'];
        yield 'only a sign' => ['-'];
        yield 'only a power of ten' => ['e5'];
        yield 'a power of nothing' => ['5e'];
        yield 'of base sixteen' => ['0x1A'];
        yield 'a name of none' => ['nan'];
        yield 'nothing' => [''];
        yield 'a word of JSON' => ['null'];
        yield 'a list' => ['[1]'];
        yield 'digits of another script' => ["\u{0663}"];
        yield 'more than is kept' => ['4e38'];
        yield 'more than any float' => ['1e400'];
    }

    #[DataProvider('noFigures')]
    public function testWhatIsNoFigureCostsItsOwnRowAndIsNamed(string $written): void
    {
        $log = $this->readWith(static fn (int $row): string => 4321 === $row ? $written : \sprintf('%.2f', $row % 360));
        self::assertSame(1, $log->badRows->count);
        // The names stand in line 1, row 0 in line 2.
        self::assertSame(4323, $log->badRows->places[0]->line);
        self::assertSame(4320.0 - 12 * 360, $log->trace('rate_measured_roll_dps')[4320]);
    }

    /** A column that somebody does not look at is judged all the same: what stands in a log does not follow from who asks. */
    #[DataProvider('figures')]
    #[DataProvider('noFigures')]
    public function testAColumnThatIsNotKeptIsJudgedAsIfItWere(string $written, float $meant = \NAN): void
    {
        $this->write("time_s,stick_roll_us,accel_x_g,setpoint_roll_dps\n", static fn (int $row): string => \sprintf(
            "%.4f,%s,%s,%.2f\n",
            $row / 1000,
            4321 === $row ? $written : 1500 + $row % 400,
            4200 === $row ? $written : '-1.5e-05',
            $row % 360,
        ));
        $plan = LogPlan::of($this->path);
        $all = LogReader::readFile($this->path, plan: $plan);
        $isKept = static fn (string $trace): bool => str_starts_with($trace, 'setpoint');
        $some = LogReader::readFile($this->path, plan: $plan->keeping($isKept));
        self::assertEquals($all->badRows, $some->badRows);
        self::assertSame(is_nan($meant) ? 2 : 0, $some->badRows->count);
        self::assertEquals($all->clock, $some->clock);
        self::assertSame(['setpoint_roll_dps'], $some->names());
        self::assertSame(['stick_roll_us', 'accel_x_g', 'setpoint_roll_dps'], $some->logged());
        self::assertSame($all->logged(), $some->logged());
        self::assertSame($all->trace('setpoint_roll_dps'), $some->trace('setpoint_roll_dps'));
        self::assertSame($some->logged(), $some->between(1.0, 2.0)->logged());
        self::assertSame(['setpoint_pitch_dps'], $some->with(['setpoint_roll_dps' => 'setpoint_pitch_dps'])->names());
    }

    public function testAWordInAColumnThatNobodyAskedForCostsNothing(): void
    {
        $log = $this->read("time_s,note,setpoint_roll_dps,rate_measured_roll_dps\n", static fn (int $row): string => \sprintf(
            "%.4f,%s,%.2f,%.2f\n",
            $row / 1000,
            ['armed', '', 'it is 5 o’clock', '12', '#'][$row % 5],
            100 * sin($row / 40),
            95 * sin($row / 40 - 0.3),
        ));
        self::assertSame(0, $log->badRows->count);
        self::assertSame(self::ROWS, $log->clock->samples);
        self::assertEqualsWithDelta(100 * sin(77.7), $log->trace('setpoint_roll_dps')[3108], 0.006);
    }

    public function testARemarkIsNoRowThoughItHasAsManyCells(): void
    {
        $log = $this->read("note,time_s,setpoint_roll_dps,rate_measured_roll_dps\n", static fn (int $row): string => \sprintf(
            "%s,%.4f,%.2f,%.2f\n%s",
            'a',
            $row / 1000,
            100 * sin($row / 40),
            95 * sin($row / 40 - 0.3),
            500 === $row ? "# seen by eye,99.5,1.0,1.0\n" : '',
        ));
        self::assertSame(self::ROWS, $log->clock->samples);
        self::assertSame(0, $log->badRows->count);
        self::assertLessThan(10.0, $log->clock->durationS());
    }

    /** @return iterable<string, array{string, int}> how columns are named, and how many of them there are */
    public static function more(): iterable
    {
        yield 'as wide as any, of nothing that is used' => [',probe_%d', 397];
        yield 'as many as one pattern catches' => [',output_%d', 147];
        yield 'more than one pattern catches' => [',output_%d', 148];
        yield 'as wide as any, all of it used' => [',output_%d', 397];
    }

    #[DataProvider('more')]
    public function testAWideTableIsReadTheSame(string $name, int $more): void
    {
        $names = implode('', array_map(static fn (int $n): string => \sprintf($name, $n), range(1, $more)));
        $cells = str_repeat(',1.5', $more);
        $row = static fn (int $i): string => \sprintf(
            '%.4f,%.2f,%.2f',
            $i / 1000,
            100 * sin($i / 40),
            95 * sin($i / 40 - 0.3),
        );
        $head = 'time_s,setpoint_roll_dps,rate_measured_roll_dps';
        $wide = $this->read("$head$names\n", static fn (int $i): string => $row($i).$cells."\n");
        $narrow = $this->read("$head\n", static fn (int $i): string => $row($i)."\n");
        self::assertSame(self::ROWS, $wide->clock->samples);
        self::assertSame(0, $wide->badRows->count);
        self::assertSame($narrow->trace('rate_measured_roll_dps'), $wide->trace('rate_measured_roll_dps'));
        self::assertSame($narrow->trace('setpoint_roll_dps'), $wide->trace('setpoint_roll_dps'));
    }

    /**
     * @param \Closure(int): string $rate   what stands for the measured rate of a row
     * @param \Closure(int): string $before lines before a row
     */
    private function readWith(\Closure $rate, ?\Closure $before = null): FlightLog
    {
        return $this->read("time_s,setpoint_roll_dps,rate_measured_roll_dps\n", static fn (int $row): string => \sprintf(
            "%s%.4f,%.2f,%s\n",
            null === $before ? '' : $before($row),
            $row / 1000,
            100 * sin($row / 40),
            $rate($row),
        ));
    }

    /** @param \Closure(int): string $row */
    private function read(string $head, \Closure $row): FlightLog
    {
        $this->write($head, $row);

        return LogReader::readFile($this->path);
    }

    /** @param \Closure(int): string $row */
    private function write(string $head, \Closure $row): void
    {
        file_put_contents($this->path, $head.implode('', array_map($row, range(0, self::ROWS - 1))));
    }

    /** As a float32 holds it. */
    private static function narrow(float $value): float
    {
        /** @var array{1: float} $held */
        $held = unpack('g', pack('g', $value));

        return $held[1];
    }
}
