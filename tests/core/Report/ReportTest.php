<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Report\Charts;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\Exclusion;
use Ortholex\Tests\core\Lcg;
use Ortholex\Tests\core\Step\KnownLoop;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
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
    #[Group('slow')]
    public function testSaysWhatIsThereAndNullForWhatIsNot(float $rate, string $which, bool $gzip): void
    {
        $report = Report::of($log = self::log($rate, 24, $which, $gzip), $analysis = FlightAnalysis::of($log));
        self::assertEqualsWithDelta($rate, $report->log->rateHz, 0.01);
        $loop = new KnownLoop(70, 0.45, 0.004);
        foreach (['roll', 'pitch'] as $axis) {
            self::assertEqualsWithDelta(1e3 * $loop->delayS(), $report->steps[$axis]->numbers?->delayMs, 1.5);
            self::assertEqualsWithDelta($loop->peak(), $report->steps[$axis]->numbers->peak ?? 0.0, 0.03);
            self::assertSame('filtered' === $which, null === $report->measured[$axis]);
            self::assertSame('measured' === $which, null === $report->filtered[$axis]);
            $spectrum = $report->measured[$axis] ?? $report->filtered[$axis];
            self::assertEqualsWithDelta(163.0, $spectrum?->peaks[0]->hz, 2.0, 'the hum put into it');
        }
        self::assertNull($report->steps['yaw']->numbers);
        self::assertSame(Grade::None, $report->steps['yaw']->confidence->grade);
        self::assertEquals([Fact::of(ConfidenceReason::NoRate, axis: Axis::Yaw)], $report->steps['yaw']->confidence->reasons);
        self::assertNull($report->measured['yaw']);
        $charts = Charts::of($analysis);
        self::assertSame(['roll', 'pitch'], array_keys($charts->steps));
        self::assertSame([], $charts->plants, 'without the terms of the command there is no plant');
        self::assertComesBack($report, $charts);
    }

    #[Group('slow')]
    public function testALogCutByGapsIsReadPieceByPiece(): void
    {
        $whole = FlightAnalysis::of(self::log(1000, 30, 'both', false))->axes['roll'];
        $log = self::log(1000, 30, 'both', false, [[8.0, 9.1], [17.0, 17.5]]);
        self::assertCount(3, $log->clock->segments);
        $cut = FlightAnalysis::of($log);
        self::assertLessThan($whole->step?->used, $cut->axes['roll']->step?->used);
        self::assertEqualsWithDelta((new KnownLoop(70, 0.45, 0.004))->peak(), $cut->axes['roll']->step?->numbers->peak, 0.04);
        $gaps = Report::of($log, $cut)->log->gaps;
        self::assertSame([7.999, 16.999], array_column($gaps, 'at_s'));
        self::assertEqualsWithDelta([1.101, 0.501], array_column($gaps, 'length_s'), 1e-6);
    }

    public function testAVeryShortLogStillGivesAReportWithReasons(): void
    {
        $report = Report::of($log = self::log(1000, 0.4, 'both', false), FlightAnalysis::of($log));
        self::assertNull($report->measured['roll'], 'shorter than one segment');
        $confidence = $report->steps['roll']->confidence;
        self::assertSame(ConfidenceReason::NothingUsed, $confidence->reasons[0]->code);
        self::assertStringContainsString(Exclusion::TooShort->value, (string) json_encode($confidence->toArray()));
        self::assertNotNull($confidence->flyInstead);
    }

    public function testConstantsAreNoFlight(): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        $rows = '';
        for ($i = 0; $i < 8000; ++$i) {
            $rows .= \sprintf("%.4f,0,0\n", $i / 1000);
        }
        file_put_contents($path, "time_s,setpoint_roll_dps,rate_measured_roll_dps\n$rows");
        $report = Report::of($log = LogReader::readFile($path), FlightAnalysis::of($log));
        unlink($path);
        self::assertSame(Grade::None, $report->steps['roll']->confidence->grade);
        self::assertSame(0.0, $report->measured['roll']?->rmsDps);
        self::assertSame([], $report->measured['roll']->peaks);
    }

    public function testQuantilesAndMeans(): void
    {
        self::assertSame(2.5, Statistics::median([4.0, 1.0, 3.0, 2.0]));
        self::assertSame(1.3, round(Statistics::quantile([1.0, 2.0, 3.0, 4.0], 0.1), 9));
        self::assertSame([1.5, 3.5], Statistics::decimated([1.0, 2.0, 3.0, 4.0, 9.0], 2));
        self::assertEqualsWithDelta(sqrt(2), Statistics::deviation([1.0, 2.0, 3.0, 4.0, 5.0]), 1e-12);
        $this->expectException(\InvalidArgumentException::class);
        Statistics::median([]);
    }

    /** A report is kept as JSON, and is the same when it is read again. */
    #[Group('slow')]
    public function testAReportOfATroubledFlightComesBackAsItWas(): void
    {
        $lost = (new KnownFlight(77))->fly(KnownFlight::quadX(), 45.0, 'rear_left', 6.0, 'mixed', 9.0, withRpm: true);
        $report = Report::of($lost, $analysis = FlightAnalysis::of($lost));
        self::assertNotEmpty($report->incidents);
        self::assertComesBack($report, Charts::of($analysis));
        $turned = (new KnownFlight(5))->fly(KnownFlight::quadX(), 45.0, null, 0.0, 'mixed', 8.0)->with([], ['rate_filtered_roll_dps']);
        $report = Report::of($turned, $analysis = FlightAnalysis::of($turned));
        self::assertNotEmpty($report->signs);
        self::assertComesBack($report, Charts::of($analysis));
    }

    private static function assertComesBack(Report $report, Charts $charts): void
    {
        $again = static function (array $data): Stored {
            $kept = json_decode(json_encode($data, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), true);
            self::assertIsArray($kept);

            return Stored::of($kept);
        };
        self::assertEquals($report->toArray(), Report::fromArray($again($report->toArray()))->toArray());
        self::assertEquals($charts->toArray(), Charts::fromArray($again($charts->toArray()))->toArray());
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
                $columns[] = array_map(
                    static fn (float $v, int $i): float => $v + 9 * sin((2 * \M_PI * 163 * $i) / $rate),
                    $y,
                    array_keys($y),
                );
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
