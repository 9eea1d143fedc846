<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Report;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogWriter;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use PHPUnit\Framework\TestCase;

/** Who analyses keeps the traces that have a say alone: then all that is said must be the same, and no trace may be missing there. */
final class LookedAtTest extends TestCase
{
    private const OTHERS = [
        'stick_roll_us' => 1500.0,
        'stick_throttle_us' => 1300.0,
        'term_i_roll' => 1.0,
        'term_i_pitch' => -0.5,
        'accel_x_g' => 0.1,
        'accel_z_g' => 1.0,
        'current_a' => 12.0,
        'position_height_m' => 20.0,
        'attitude_roll_deg' => 3.0,
        'satellites' => 11.0,
    ];

    public function testWhatIsSaidOfAFlightDoesNotNeedTheOthers(): void
    {
        $flown = (new KnownFlight(21))->fly(KnownFlight::quadX(), 45.0, null, 0.0, 'mixed', 14, 1000);
        $rate = $flown->trace('rate_filtered_roll_dps');
        $traces = array_combine($flown->names(), array_map($flown->trace(...), $flown->names()));
        foreach (self::OTHERS as $name => $about) {
            $traces[$name] = array_map(static fn (float $w): float => $about + $w / 1000, $rate);
        }
        // All that else has a say, so that it would be missed.
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $set = $traces["setpoint_{$axis}_dps"];
            $w = $traces["rate_filtered_{$axis}_dps"];
            $traces["rate_measured_{$axis}_dps"] ??= $w;
            $traces["term_p_$axis"] = array_map(static fn (float $s, float $is): float => 0.1 * ($s - $is), $set, $w);
            $traces["term_d_$axis"] = array_map(static fn (float $is): float => -0.01 * $is, $w);
            $traces["term_ff_$axis"] = array_map(static fn (float $s): float => 0.05 * $s, $set);
        }
        $traces['battery_v'] = array_map(static fn (float $w): float => 15.0 - abs($w) / 1000, $rate);
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        $stream = fopen($path, 'w') ?: throw new \RuntimeException($path);
        LogWriter::write(KnownFlight::of($traces, 1000), $stream);
        fclose($stream);
        $plan = LogPlan::of($path);
        $all = LogReader::readFile($path, plan: $plan);
        $some = LogReader::readFile($path, plan: $plan->keeping(FlightAnalysis::looksAt(...)));
        unlink($path);
        self::assertSame(array_keys($traces), $all->names());
        self::assertSame(array_keys(array_diff_key($traces, self::OTHERS)), $some->names());
        self::assertSame(self::told($all), self::told($some));
    }

    public function testEachTraceThatCoreAsksForByItsNameIsLookedAt(): void
    {
        foreach (['throttle_pct', 'tracking_notch_1_hz', 'rpm_front_left', 'output_3_pct', 'battery_v', 'term_ff_yaw'] as $name) {
            self::assertNotNull(Traces::unitOf($name), $name);
            self::assertTrue(FlightAnalysis::looksAt($name), $name);
        }
        foreach (array_keys(self::OTHERS) as $name) {
            self::assertNotNull(Traces::unitOf($name), $name);
            self::assertFalse(FlightAnalysis::looksAt($name), $name);
        }
    }

    /** Where no throttle was logged the outputs stand for it, run by run: also where a run is shorter than what is averaged into one. */
    public function testARunTooShortToBeAveragedStillIsOne(): void
    {
        $lines = ["time_s,output_front_pct,output_rear_pct\n"];
        foreach ([[0.0, 400, 20.0], [1.0, 3, 90.0], [2.0, 400, 60.0]] as [$start, $count, $pct]) {
            for ($i = 0; $i < $count; ++$i) {
                $lines[] = \sprintf("%.4f,%.1f,%.1f\n", $start + $i / 1000, $pct - 5, $pct + 5);
            }
        }
        $log = KnownFlight::read(implode('', $lines));
        self::assertCount(3, $log->clock->segments);
        $throttle = FlightAnalysis::throttle($log, 8);
        self::assertSame([50, 0, 50], array_map(\count(...), $throttle));
        self::assertEqualsWithDelta(array_fill(0, 50, 60.0), $throttle[2], 1e-4);
    }

    /** @return array<string, string> all that a report and an analysis hold, as a digest of each part */
    private static function told(FlightLog $log): array
    {
        $analysis = FlightAnalysis::of($log, false);
        $told = ['report' => md5(serialize(Report::of($log, $analysis)))];
        foreach (get_object_vars($analysis) as $name => $part) {
            $told[(string) $name] = md5(serialize($part));
        }

        return $told;
    }
}
