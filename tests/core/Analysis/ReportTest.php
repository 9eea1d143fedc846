<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Analysis;

use Ortholex\Core\Analysis\AnalysisCharts;
use Ortholex\Core\Analysis\AnalysisReport;
use Ortholex\Core\Analysis\FlightAnalysis;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogReader;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The report as other programs read it, from files as other people write them. */
final class ReportTest extends TestCase
{
    /** @return iterable<string, array{float, string, bool}> rate, which rates were logged, gzip */
    public static function files(): iterable
    {
        yield '500 Hz, filtered only' => [500.0, 'filtered', false];
        yield '2 kHz, both, gzip' => [2000.0, 'both', true];
        yield '4 kHz, measured only' => [4000.0, 'measured', false];
    }

    #[DataProvider('files')]
    public function testSaysWhatIsThereAndNullForWhatIsNot(float $rate, string $which, bool $gzip): void
    {
        $report = AnalysisReport::of($log = self::log($rate, 24, $which, $gzip), $analysis = FlightAnalysis::of($log));
        self::assertSame(['duration_s', 'sample_rate_hz', 'samples', 'gaps', 'time_faults', 'bad_rows', 'bad_places', 'traces', 'columns_left_out'], array_keys($report['log']));
        self::assertEqualsWithDelta($rate, $report['log']['sample_rate_hz'], 0.01);
        $loop = new KnownLoop(70, 0.45, 0.004);
        foreach (['roll', 'pitch'] as $axis) {
            self::assertEqualsWithDelta(1e3 * $loop->delayS(), $report['step'][$axis]['delay_ms'], 1.5);
            self::assertEqualsWithDelta($loop->peak(), $report['step'][$axis]['peak'], 0.03);
            self::assertSame('filtered' === $which, null === $report['spectrum'][$axis]['measured']);
            self::assertSame('measured' === $which, null === $report['spectrum'][$axis]['filtered']);
            $spectrum = $report['spectrum'][$axis]['measured'] ?? $report['spectrum'][$axis]['filtered'];
            self::assertIsArray($spectrum);
            self::assertIsArray($spectrum['peaks']);
            self::assertIsArray($spectrum['peaks'][0]);
            self::assertEqualsWithDelta(163.0, $spectrum['peaks'][0]['hz'], 2.0, 'the hum put into it');
        }
        self::assertNull($report['step']['yaw']['peak']);
        self::assertSame('none', $report['step']['yaw']['grade']);
        self::assertSame(['the log has no rotation rate of yaw'], $report['step']['yaw']['reasons']);
        self::assertNull($report['spectrum']['yaw']['measured']);
        $charts = AnalysisCharts::of($analysis);
        self::assertSame(['roll', 'pitch'], array_keys($charts['step']));
        self::assertSame([], $charts['plant'], 'without the terms of the command there is no plant');
        self::assertIsString(json_encode([$report, $charts], \JSON_THROW_ON_ERROR), 'nothing in it that JSON cannot say');
    }

    public function testALogCutByGapsIsReadPieceByPiece(): void
    {
        $whole = FlightAnalysis::of(self::log(1000, 30, 'both', false))->axes['roll'];
        $log = self::log(1000, 30, 'both', false, [[8.0, 9.1], [17.0, 17.5]]);
        self::assertCount(3, $log->clock->segments);
        $cut = FlightAnalysis::of($log);
        self::assertLessThan($whole->step?->used, $cut->axes['roll']->step?->used);
        self::assertEqualsWithDelta((new KnownLoop(70, 0.45, 0.004))->peak(), $cut->axes['roll']->step?->numbers['peak'], 0.04);
        $gaps = AnalysisReport::of($log, $cut)['log']['gaps'];
        self::assertIsArray($gaps);
        self::assertSame([7.999, 16.999], array_column($gaps, 'at_s'));
        self::assertEqualsWithDelta([1.101, 0.501], array_column($gaps, 'length_s'), 1e-6);
    }

    public function testAVeryShortLogStillGivesAReportWithReasons(): void
    {
        $report = AnalysisReport::of($log = self::log(1000, 0.4, 'both', false), FlightAnalysis::of($log));
        self::assertNull($report['spectrum']['roll']['measured'], 'shorter than one segment');
        self::assertStringContainsString('too short for a window', (string) json_encode($report['step']['roll']['reasons']));
        self::assertNotSame('', $report['step']['roll']['fly_instead']);
    }

    public function testConstantsAreNoFlight(): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        $rows = '';
        for ($i = 0; $i < 8000; ++$i) {
            $rows .= \sprintf("%.4f,0,0\n", $i / 1000);
        }
        file_put_contents($path, "time_s,setpoint_roll_dps,rate_measured_roll_dps\n$rows");
        $report = AnalysisReport::of($log = LogReader::readFile($path), FlightAnalysis::of($log));
        unlink($path);
        self::assertSame('none', $report['step']['roll']['grade']);
        self::assertSame(['rms_dps' => 0.0, 'peaks' => []], $report['spectrum']['roll']['measured']);
    }

    public function testQuantilesAndMeans(): void
    {
        self::assertSame(2.5, Statistics::median([4.0, 1.0, 3.0, 2.0]));
        self::assertSame(1.3, round(Statistics::quantile([1.0, 2.0, 3.0, 4.0], 0.1), 9));
        self::assertSame([1.5, 3.5], Statistics::means([1.0, 2.0, 3.0, 4.0, 9.0], 2));
        self::assertEqualsWithDelta(sqrt(2), Statistics::deviation([1.0, 2.0, 3.0, 4.0, 5.0]), 1e-12);
        $this->expectException(\InvalidArgumentException::class);
        Statistics::median([]);
    }

    /** @param list<array{float, float}> $gaps from, to in seconds */
    private static function log(float $rate, float $seconds, string $which, bool $gzip, array $gaps = []): FlightLog
    {
        $columns = [];
        $names = ['time_s'];
        foreach (['roll' => 3, 'pitch' => 4] as $axis => $seed) {
            [$x, $y] = (new KnownLoop(70, 0.45, 0.004))->fly($rate, $seconds, 24, $seed);
            $names[] = "setpoint_{$axis}_dps";
            $columns[] = $x;
            foreach ('both' === $which ? ['measured', 'filtered'] : [$which] as $kind) {
                $names[] = "rate_{$kind}_{$axis}_dps";
                $columns[] = array_map(static fn (float $v, int $i): float => $v + 9 * sin(2 * \M_PI * 163 * $i / $rate), $y, array_keys($y));
            }
        }
        $dice = new Lcg(1);
        $out = implode(',', $names)."\n";
        foreach (array_keys($columns[0]) as $i) {
            $t = $i / $rate;
            foreach ($gaps as [$from, $to]) {
                if ($t >= $from && $t < $to) {
                    continue 2;
                }
            }
            $out .= \sprintf('%.6f', $t + 1e-7 * $dice->next());
            foreach ($columns as $column) {
                $out .= \sprintf(',%.3f', $column[$i]);
            }
            $out .= "\n";
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        file_put_contents($path, $gzip ? gzencode($out) : $out);
        $log = LogReader::readFile($path);
        unlink($path);

        return $log;
    }
}
