<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Any cells in any row: read, and analysed without a figure that is none, or refused in words. */
final class FuzzedLogTest extends TestCase
{
    private const CELLS = [
        '1e39', '-1e39', '1e999', '-1e999', 'true', 'false', 'null', '{}', '[]', '[1]', '{"a":1}', '"1"', '""', "'1'", 'nan', 'inf', '-inf',
        '1e-400', '0x1F', '1_000', '1,5', '١٢', "\0", "\xFF\xFE", '9223372036854775808', '--1', '+1', '.5', '5.', '1e', '1e+', ' 7 ', "\t",
        '#', ']],[[', '],[', '1],[1', '3.4028235e38', '3.5e38', '1e38', '=1+1', '1e308', '-0', '00012', '1.7976931348623157e308',
    ];
    private const HEADS = [
        'time_s,setpoint_roll_dps,rate_measured_roll_dps,rate_filtered_roll_dps,term_p_roll,output_front_left_pct,throttle_pct',
        't [ms];p;q;r;u1;u2;throttle',
        'time_us,gyro[0],gyro[1],setpoint[0],motor[0],motor[1],rcCommand[3]',
    ];

    private string $path = '';

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'log');
    }

    protected function tearDown(): void
    {
        @unlink($this->path);
    }

    #[Group('slow')]
    public function testAnyCellsAnywhere(): void
    {
        $whole = '1' === getenv('ORTHOLEX_WHOLE');
        [$plain, $packed] = $whole ? [20_000, 5_000] : [500, 125];
        $read = $analysed = 0;
        for ($seed = 1; $seed <= $plain + $packed; ++$seed) {
            $bytes = self::fuzzed($seed);
            file_put_contents($this->path, $seed > $plain ? self::packed($seed, $bytes) : $bytes);
            try {
                $log = LogReader::readFile($this->path);
            } catch (LogError $e) {
                self::assertNotSame('', $e->getMessage());
                continue;
            }
            ++$read;
            foreach ($log->names() as $name) {
                foreach ($log->trace($name) as $v) {
                    if (!is_finite($v)) {
                        self::fail("seed $seed: $name holds $v");
                    }
                }
            }
            if (0 === $seed % 5) {
                // A figure that is none cannot be written as JSON, and would throw here.
                $report = json_encode(Report::of($log, FlightAnalysis::of($log))->toArray(), \JSON_THROW_ON_ERROR);
                self::assertStringStartsWith('{', $report, "seed $seed");
                ++$analysed;
            }
        }
        self::assertGreaterThan(($plain + $packed) / 4, $read, 'enough were read to tell');
        self::assertGreaterThan(($plain + $packed) / 25, $analysed);
    }

    /** @return iterable<string, array{string}> */
    public static function noNumbers(): iterable
    {
        $beyond = ['1e39', '-1e39', '1e999', '3.4028235e38', '-3.4028236e38', str_repeat('4', 39), '-'.str_repeat('9', 50).'.5'];
        foreach ([...$beyond, 'true', 'null', '{}', '[]'] as $cell) {
            yield $cell => [$cell];
        }
    }

    /** The greatest float32 (IEEE 754: (2 − 2^−23) · 2^127) is a number; whether its row is read in a block or by itself. */
    public function testTheGreatestThatCanBeKeptIsKept(): void
    {
        foreach (['3.4028234663852886e38', '-3.4028234663852886e38', '3.4e38'] as $cell) {
            foreach (['', 'torn'] as $other) {
                $lines = ['time_s,setpoint_roll_dps,rate_measured_roll_dps'];
                for ($i = 0; $i < 300; ++$i) {
                    $lines[] = \sprintf('%.4f,12.5,%s', $i / 1000, 150 === $i ? $cell : '11.5');
                }
                file_put_contents($this->path, implode("\n", [...$lines, ...'' === $other ? [] : [$other]])."\n");
                $log = LogReader::readFile($this->path);
                self::assertSame('' === $other ? 0 : 1, $log->badRows->count, $cell);
                $expected = FlightLog::unpackFloats(pack('g', (float) $cell))[0];
                self::assertSame($expected, $log->trace('rate_measured_roll_dps')[150], "$cell, as float32 and no less");
            }
        }
    }

    /** One such cell costs its own row and nothing else, wherever it stands, and it is told. */
    #[DataProvider('noNumbers')]
    public function testOneCellThatIsNoNumberCostsItsRow(string $cell): void
    {
        foreach ([3, 700, 1499] as $row) {
            foreach ([0, 1, 2] as $column) {
                $lines = ['time_s,setpoint_roll_dps,rate_measured_roll_dps'];
                for ($i = 0; $i < 1500; ++$i) {
                    $cells = [\sprintf('%.4f', $i / 1000), '12.5', '11.5'];
                    if ($i === $row) {
                        $cells[$column] = $cell;
                    }
                    $lines[] = implode(',', $cells);
                }
                file_put_contents($this->path, implode("\n", $lines)."\n");
                $log = LogReader::readFile($this->path);
                self::assertSame(1, $log->badRows->count, "$cell in row $row, column $column");
                self::assertSame($row + 2, $log->badRows->places[0]->line);
                $rates = $log->trace('rate_measured_roll_dps');
                self::assertEqualsWithDelta(11.5, max($rates), 1e-4);
                self::assertEqualsWithDelta(11.5, min($rates), 1e-4);
            }
        }
    }

    /** @return iterable<string, array{float, int}> Hz, rows */
    public static function slowAndShort(): iterable
    {
        foreach ([0.01, 0.1, 1.0, 2.0, 5.0, 9.9] as $rate) {
            yield "$rate Hz" => [$rate, 400];
        }
        foreach ([1, 2, 3, 5, 17, 63, 200] as $rows) {
            yield "$rows rows" => [1000.0, $rows];
        }
    }

    /** Too slow or too short to tell much: it is read, and the report says what it cannot tell, in bounded memory. */
    #[DataProvider('slowAndShort')]
    public function testSlowAndShortLogsSayWhatTheyCannotTell(float $rate, int $rows): void
    {
        $csv = "time_s,setpoint_roll_dps,rate_measured_roll_dps,rate_filtered_roll_dps,throttle_pct,output_front_left_pct\n";
        for ($i = 0; $i < $rows; ++$i) {
            $csv .= \sprintf("%.6f,%.2f,%.2f,%.2f,%.1f,%.1f\n", $i / $rate, 100 * sin($i), 90 * sin($i), 88 * sin($i), 40 + $i % 9, 41);
        }
        file_put_contents($this->path, $csv);
        $before = memory_get_peak_usage();
        try {
            $log = LogReader::readFile($this->path);
        } catch (LogError $e) {
            self::assertNotSame('', $e->getMessage());

            return;
        }
        $report = Report::of($log, FlightAnalysis::of($log))->toArray();
        self::assertIsString(json_encode($report, \JSON_THROW_ON_ERROR));
        self::assertLessThan(50_000_000, memory_get_peak_usage() - $before);
    }

    private static function fuzzed(int $seed): string
    {
        $dice = new Lcg($seed);
        $head = self::HEADS[$dice->whole(0, \count(self::HEADS) - 1)];
        $mark = str_contains($head, ';') ? ';' : ',';
        $width = \count(explode($mark, $head));
        $scale = str_contains($head, 'us') ? 1e6 : (str_contains($head, 'ms') ? 1e3 : 1);
        $lines = [$head];
        $rows = $dice->whole(1, 400);
        for ($i = 0; $i < $rows; ++$i) {
            $cells = [(string) ($i * $scale / 1000)];
            for ($c = 1; $c < $width; ++$c) {
                $cells[] = \sprintf('%.2f', 50 * sin($i / (5 + $c)) + $dice->next());
            }
            $lines[] = implode($mark, $cells);
        }
        for ($blows = $dice->whole(1, 12); $blows > 0; --$blows) {
            $at = $dice->whole(0 === $dice->whole(0, 9) ? 0 : 1, $rows);
            $cells = explode($mark, $lines[$at]);
            $cells[$dice->whole(0, \count($cells) - 1)] = self::CELLS[$dice->whole(0, \count(self::CELLS) - 1)];
            $lines[$at] = match ($dice->whole(0, 9)) {
                0 => implode($mark, \array_slice($cells, 1)),
                1 => implode($mark, $cells).$mark,
                2 => '',
                default => implode($mark, $cells),
            };
        }

        return implode(0 === $seed % 7 ? "\r\n" : "\n", $lines).(0 === $seed % 3 ? '' : "\n");
    }

    /** Whole, cut off, or with a byte of it changed. */
    private static function packed(int $seed, string $bytes): string
    {
        $dice = new Lcg(-$seed);
        $gz = (string) gzencode($bytes, 6);

        return match ($dice->whole(0, 2)) {
            0 => $gz,
            1 => substr($gz, 0, $dice->whole(1, \strlen($gz))),
            default => substr_replace($gz, \chr($dice->whole(0, 255)), $dice->whole(0, \strlen($gz) - 1), 1),
        };
    }
}
