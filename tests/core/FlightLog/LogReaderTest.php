<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\BadRowReason;
use Ortholex\Core\FlightLog\BadStretch;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\LogWriter;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Finding\FindingCode;
use Ortholex\Core\Report\Finding\Findings;
use Ortholex\Core\Report\FlightAnalysis;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LogReaderTest extends TestCase
{
    private string $path = '';

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'log');
    }

    protected function tearDown(): void
    {
        @unlink($this->path);
    }

    public function testReadsWhatWasWritten(): void
    {
        $first = $this->read($this->csv(5000));
        $out = fopen($this->path, 'w');
        self::assertIsResource($out);
        LogWriter::write($first, $out);
        fclose($out);
        $again = LogReader::readFile($this->path);
        self::assertSame($first->names(), $again->names());
        self::assertSame($first->settings, $again->settings);
        self::assertEqualsWithDelta($first->clock->rateHz, $again->clock->rateHz, 1e-3);
        foreach ($first->names() as $name) {
            self::assertEqualsWithDelta($first->trace($name), $again->trace($name), 6e-4, $name);
        }
        self::assertSame("gain.roll.p: 33.0\nflight.card: mixed_sticks\n", $first->settings);
        self::assertEqualsWithDelta(200 * sin(0.01 * 1234), $first->trace('setpoint_roll_dps')[1234], 1e-3);
    }

    /** @return iterable<string, array{\Closure(string): string}> ways of writing the same file */
    public static function manners(): iterable
    {
        yield 'gzip' => [static fn (string $s): string => (string) gzencode($s)];
        yield 'carriage returns' => [static fn (string $s): string => str_replace("\n", "\r\n", $s)];
        yield 'byte order mark' => [static fn (string $s): string => "\xEF\xBB\xBF".$s];
        yield 'no end of line at the end' => [static fn (string $s): string => rtrim($s, "\n")];
        yield 'blank lines between' => [static fn (string $s): string => str_replace("\n0.1", "\n\n0.1", $s)];
        yield 'comments between' => [static fn (string $s): string => str_replace("\n0.1000", "\n# half-way\n0.1000", $s)];
        yield 'plus signs and bare points' => [static fn (string $s): string => str_replace(',0.500', ',+.5', $s)];
    }

    /** @param \Closure(string): string $manner */
    #[DataProvider('manners')]
    public function testMannersOfWritingDoNotMatter(\Closure $manner): void
    {
        $plain = $this->read($this->csv(1500));
        $other = $this->read($manner($this->csv(1500)));
        self::assertSame(0, $other->badRows->count);
        self::assertSame($plain->packed(), $other->packed());
        self::assertEqualsWithDelta(2000, $other->clock->rateHz, 1e-6);
    }

    public function testTornAndUnreadableRowsCostTheirNeighboursNothing(): void
    {
        $lines = explode("\n", rtrim($this->csv(3000), "\n"));
        $lines[500] = '0.2,x,3,4,5';
        $lines[501] = '0.2,nan,3,4,5';
        $lines[900] = '0.44850,1,2';
        $lines[1200] = '0.5985,1e999,2,3,4';
        $lines[] = '1.50000,12.5,7';
        $log = $this->read(implode("\n", $lines));
        self::assertSame(5, $log->badRows->count);
        self::assertSame(
            [[501, 2], [901, 1], [1201, 1], [3004, 1]],
            array_map(static fn (BadStretch $p): array => [$p->line, $p->count], $log->badRows->places),
        );
        self::assertSame(BadRowReason::Torn, $log->badRows->places[3]->reason->code);
        self::assertSame(3000, $log->clock->samples, 'single lost rows are bridged');
        self::assertSame([], $log->clock->gaps(), 'holes that unreadable rows explain are not gaps as well');
        self::assertCount(3, $log->clock->faults);
    }

    public function testATornGzipGivesWhatCameBefore(): void
    {
        $bytes = (string) gzencode($this->csv(40000));
        $log = $this->read(substr($bytes, 0, (int) (\strlen($bytes) * 0.6)));
        self::assertGreaterThan(5000, $log->clock->samples);
        self::assertLessThan(40000, $log->clock->samples);
        $last = $log->badRows->places[\count($log->badRows->places) - 1] ?? null;
        self::assertTrue($last?->reason->is(BadRowReason::BreaksOff), 'and says that the rest is missing');
        $said = array_map(static fn (Finding $f): mixed => $f->what->code, Findings::of($log, FlightAnalysis::of($log, false)));
        self::assertContains(FindingCode::BreaksOff, $said);
        self::assertNotContains(FindingCode::RowsUnreadable, $said, 'one row is not what is missing');
    }

    public function testAGzipIsWholeHoweverItWasPut(): void
    {
        $csv = $this->csv(3000);
        $cut = (int) strpos($csv, "\n", 60000) + 1;
        foreach (
            [
                'in one' => (string) gzencode($csv),
                'two, one after the other' => gzencode(substr($csv, 0, $cut)).gzencode(substr($csv, $cut)),
                'not at all' => $csv,
            ] as $how => $bytes
        ) {
            $log = $this->read($bytes);
            self::assertSame(0, $log->badRows->count, $how);
            self::assertSame(3000, $log->clock->samples, $how);
        }
        $two = gzencode(substr($csv, 0, $cut)).gzencode(substr($csv, $cut));
        self::assertSame(1, $this->read(substr($two, 0, -1000))->badRows->count, 'the second of the two is torn');
    }

    /** @return iterable<string, array{0: string, 1: string, 2?: BadRowReason}> */
    public static function noLogs(): iterable
    {
        yield 'empty' => ['', 'empty'];
        yield 'header only' => ["time_s,setpoint_roll_dps\n", 'no rows'];
        yield 'one row' => ["time_s,setpoint_roll_dps\n0,1\n", 'never moves forward'];
        yield 'all NaN' => ["time_s,setpoint_roll_dps\nnan,nan\nnan,nan\n", 'None of the 2 rows', BadRowReason::NotANumber];
        yield 'no time' => ["setpoint_roll_dps,term_p_roll\n1,2\n", 'no column that is a time'];
        yield 'nothing known' => ["time_s,foo,bar\n1,2,3\n", 'names no trace'];
        yield 'a trace twice' => ["time_s,term_p_roll,term_p_roll\n1,2,3\n", 'twice'];
        yield 'binary' => ["\x7FELF\x00\x01\x02".str_repeat("\x00\xFF", 200)."\n", 'binary'];
        yield 'ten thousand columns' => ['time_s,'.implode(',', array_fill(0, 10000, 'x'))."\n", '10001 columns'];
        yield 'a line without end' => [str_repeat('1', 3_000_000), 'longer than 128 KB'];
        yield 'a row without end' => ["time_s,term_p_roll\n".str_repeat('1', 3_000_000), 'line 2 is the first', BadRowReason::TooLong];
    }

    #[DataProvider('noLogs')]
    public function testWhatIsNoLogIsRefusedInOneClearLine(string $content, string $why, ?BadRowReason $first = null): void
    {
        try {
            $this->read($content);
            self::fail('It was taken for a log.');
        } catch (LogError $e) {
            self::assertStringContainsString($why, $e->getMessage());
            self::assertStringNotContainsString("\n", $e->getMessage());
            self::assertSame($first, $e->firstBad?->reason->code);
        }
    }

    public function testAGzipBombIsStoppedAtTheBound(): void
    {
        file_put_contents($this->path, gzencode("time_s,term_p_roll\n".str_repeat("0.001,1\n", 2_000_000)));
        $this->expectException(LogError::class);
        $this->expectExceptionMessage('more than 5 MB');
        LogReader::readFile($this->path, 5_000_000);
    }

    public function testAMissingFileSaysSo(): void
    {
        $this->expectException(LogError::class);
        $this->expectExceptionMessage('/nowhere/at-all.csv');
        LogReader::readFile('/nowhere/at-all.csv');
    }

    public function testColumnsThatAreNoTraceAreNamedAndLeftOut(): void
    {
        $log = $this->read(str_replace('term_p_roll', 'lunch', $this->csv(200)));
        self::assertSame(['lunch'], $log->leftOut);
        self::assertFalse($log->has('lunch'));
    }

    public function testTraceNamesHaveUnits(): void
    {
        self::assertSame(
            ['deg/s', '%', 'rpm', 'µs', 'V', null],
            array_map(Traces::unitOf(...), [
                'rate_filtered_yaw_dps',
                'output_rear_left_pct',
                'rpm_3',
                'stick_throttle_us',
                'battery_v',
                'nonsense',
            ]),
        );
        self::assertSame(
            ['filtered rate, yaw', 'feed-forward, roll', 'output, rear left'],
            array_map(Traces::inWords(...), ['rate_filtered_yaw_dps', 'term_ff_roll', 'output_rear_left_pct']),
        );
    }

    private function read(string $content): FlightLog
    {
        file_put_contents($this->path, $content);

        return LogReader::readFile($this->path);
    }

    private function csv(int $rows): string
    {
        $out = "# gain.roll.p: 33.0\n# flight.card: mixed_sticks\ntime_s,setpoint_roll_dps,rate_filtered_roll_dps,term_p_roll,battery_v\n";
        for ($i = 0; $i < $rows; ++$i) {
            $out .= \sprintf("%.5f,%.4f,%.4f,0.500,%.2f\n", $i / 2000, 200 * sin(0.01 * $i), 190 * sin(0.01 * $i - 0.1), 25 - $i * 1e-4);
        }

        return $out;
    }
}
