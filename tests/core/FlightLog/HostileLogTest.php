<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Files as flights that ended badly leave them: whatever is in them, a clear error or a true partial log. */
final class HostileLogTest extends TestCase
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

    #[Group('slow')]
    public function testDamageAnywhereNeverBringsMoreThanItsOwnLoss(): void
    {
        $clean = "time_s,setpoint_roll_dps,rate_measured_roll_dps,battery_v\n";
        for ($i = 0; $i < 4000; ++$i) {
            $clean .= \sprintf("%.4f,%.2f,%.2f,%.2f\n", $i / 1000, 100 * sin($i / 40), 95 * sin($i / 40 - 0.3), 24.5);
        }
        $head = (int) strpos($clean, "\n") + 1;
        for ($seed = 1; $seed <= 120; ++$seed) {
            $dice = new Lcg($seed);
            $bytes = $clean;
            $blows = $dice->whole(1, 6);
            for ($b = 0; $b < $blows; ++$b) {
                $at = $dice->whole($head, max($head, \strlen($bytes) - 400));
                $length = $dice->whole(1, 300);
                $bytes = match ($dice->whole(0, 4)) {
                    0 => substr_replace($bytes, '', $at, $length),
                    1 => substr_replace($bytes, str_repeat("\xFF\x00", intdiv($length, 2)), $at, $length),
                    2 => substr_replace($bytes, substr($bytes, max($head, $at - 900), $length), $at, 0),
                    3 => substr_replace($bytes, "\n\n,,,\nnan,1,2,3\n1e400,1,1,1\n-,-,-,-\n", $at, 0),
                    default => substr($bytes, 0, max($at, $head + 20_000)),
                };
            }
            file_put_contents($this->path, 0 === $seed % 3 ? gzencode($bytes) : $bytes);
            $log = LogReader::readFile($this->path);
            self::assertGreaterThan(30, $log->clock->samples, "seed $seed");
            self::assertLessThan(4000 + 40 * $blows, $log->clock->samples, "seed $seed");
            foreach ($log->names() as $name) {
                $trace = $log->trace($name);
                self::assertCount($log->clock->samples, $trace);
                self::assertCount(0, array_filter($trace, static fn (float $v): bool => !is_finite($v)), "seed $seed, $name");
            }
            $last = -\INF;
            foreach ($log->clock->segments as $segment) {
                self::assertGreaterThan($last, $segment->startS, 'time only goes on');
                $last = $segment->endS($log->clock->rateHz);
            }
            if (0 === $seed % 10) {
                self::assertIsString(json_encode(Report::of($log, FlightAnalysis::of($log))->toArray(), \JSON_THROW_ON_ERROR));
            }
        }
    }

    public function testNoiseIsNeverTakenForALogAndNeverBreaksTheReader(): void
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            $dice = new Lcg(1000 + $seed);
            $bytes = 0 === $seed % 2 ? '' : "time_s,term_p_roll\n";
            for ($i = $dice->whole(1, 3000); $i > 0; --$i) {
                $bytes .= \chr($dice->whole(0, 255));
            }
            file_put_contents($this->path, $bytes);
            try {
                LogReader::readFile($this->path);
                self::fail("Seed $seed was taken for a log.");
            } catch (LogError $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }

    public function testAnyLossAndJitterLeavesRateAndPlacesTrue(): void
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            $dice = new Lcg(77 + $seed);
            $rate = [500.0, 1000.0, 1600.0, 2000.0, 4000.0, 8000.0][$dice->whole(0, 5)];
            $times = [];
            $lost = 0;
            $jitter = (0.08 * ($dice->next() + 0.5)) / $rate;
            for ($i = 0; $i < 6000; ++$i) {
                if (0 === $dice->whole(0, 400)) {
                    $skip = $dice->whole(1, 40);
                    $i += $skip;
                    ++$lost;
                }
                $times[] = $i / $rate + $jitter * $dice->next();
            }
            $clock = SampleClock::fromTimes($times);
            self::assertEqualsWithDelta($rate, $clock->rateHz, 0.004 * $rate, "seed $seed");
            self::assertLessThanOrEqual($lost, \count($clock->segments) - 1);
            self::assertEqualsWithDelta(
                end($times) - $times[0],
                $clock->durationS(),
                0.01 + 0.004 * (end($times) - $times[0]),
                "seed $seed",
            );
            self::assertSame($clock->samples, $clock->arrange(Column::ofBytes(FlightLog::packFloats($times)))->count);
            foreach ($clock->segments as $segment) {
                self::assertGreaterThan(0, $segment->count);
            }
        }
    }

    #[Group('slow')]
    public function testAGzipBombIsGivenUpEarly(): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'bomb');
        $gz = gzopen($path, 'wb9');
        self::assertIsResource($gz);
        gzwrite($gz, "time_s,term_p_roll\n");
        for ($i = 0; $i < 90; ++$i) {
            gzwrite($gz, str_repeat("0.5,1\n", 170_000));
        }
        gzclose($gz);
        try {
            LogReader::readFile($path);
            self::fail('It was read.');
        } catch (LogError $e) {
            self::assertStringContainsString('times its size', $e->getMessage());
        } finally {
            unlink($path);
        }
    }
}
