<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\ColumnGuess;
use Ortholex\Core\FlightLog\Reading\ColumnMatcher;
use Ortholex\Core\FlightLog\Traces;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Names of columns in many manners, and the trace each means. */
final class ColumnMatcherTest extends TestCase
{
    /** @return iterable<string, array{string, string|null}> */
    public static function names(): iterable
    {
        $names = [
            // Time, in many words and units.
            'time' => 'time_s',
            'Time [ms]' => 'time_s',
            'timestamp_us' => 'time_s',
            'elapsed seconds' => 'time_s',
            't' => 'time_s',
            'clock' => 'time_s',
            'Zeit' => 'time_s',
            // What was asked.
            'rollSetpoint' => 'setpoint_roll_dps',
            'pitch_cmd' => 'setpoint_pitch_dps',
            'Desired Yaw Rate (deg/s)' => 'setpoint_yaw_dps',
            'target.roll' => 'setpoint_roll_dps',
            'sp_pitch' => 'setpoint_pitch_dps',
            'YawCommand' => 'setpoint_yaw_dps',
            'setpoint[1]' => 'setpoint_pitch_dps',
            'rate_ref_x' => 'setpoint_roll_dps',
            'demanded rudder rate' => 'setpoint_yaw_dps',
            'SOLL_ROLL' => 'setpoint_roll_dps',
            // What it did.
            'gyro_x' => 'rate_measured_roll_dps',
            'GyroY' => 'rate_measured_pitch_dps',
            'gyroz' => 'rate_measured_yaw_dps',
            'gyro[0]' => 'rate_measured_roll_dps',
            'roll rate' => 'rate_measured_roll_dps',
            'omega_pitch_raw' => 'rate_measured_pitch_dps',
            'unfiltered gyro yaw' => 'rate_measured_yaw_dps',
            'gyro_roll_filtered' => 'rate_filtered_roll_dps',
            'gyroFilt_y' => 'rate_filtered_pitch_dps',
            'yaw rate (post lpf)' => 'rate_filtered_yaw_dps',
            'angular velocity z' => 'rate_measured_yaw_dps',
            'actual roll' => 'rate_measured_roll_dps',
            'pitch_meas' => 'rate_measured_pitch_dps',
            'ist_gier' => 'rate_measured_yaw_dps',
            // Terms of the controller.
            'rollP' => 'term_p_roll',
            'pid_d_pitch' => 'term_d_pitch',
            'iterm_yaw' => 'term_i_yaw',
            'axis_roll_ff' => 'term_ff_roll',
            'feedforward pitch' => 'term_ff_pitch',
            'dterm[2]' => 'term_d_yaw',
            // Motors.
            'motor1' => 'output_1_pct',
            'Motor 3 output' => 'output_3_pct',
            'esc_2' => 'output_2_pct',
            'out4' => 'output_4_pct',
            'motor_front_left' => 'output_front_left_pct',
            'motor RR' => 'output_rear_right_pct',
            'act2' => 'output_2_pct',
            'rpm3' => 'rpm_3',
            'motor2 rpm' => 'rpm_2',
            'rpm_rear_left' => 'rpm_rear_left',
            // The rest.
            'throttle' => 'throttle_pct',
            'Thr [%]' => 'throttle_pct',
            'Gas' => 'throttle_pct',
            'stick_roll' => 'stick_roll_us',
            'rc_yaw' => 'stick_yaw_us',
            'accel_z' => 'accel_z_g',
            'AccX' => 'accel_x_g',
            'battery voltage' => 'battery_v',
            'current (A)' => 'current_a',
            'amperage' => 'current_a',
            // None of ours.
            'temperature' => null,
            'debug[3]' => null,
            'rssi' => null,
            'flags' => null,
            'latitude' => null,
            'heading' => null,
            '' => null,
            '???' => null,
            'altitude_m' => null,
        ];
        foreach ($names as $name => $trace) {
            yield '' === $name ? 'no name' : $name => [(string) $name, $trace];
        }
        foreach (Traces::common([]) as $trace) {
            yield "ours: $trace" => [$trace, $trace];
        }
    }

    #[DataProvider('names')]
    public function testOneNameAlone(string $name, ?string $trace): void
    {
        $guess = ColumnMatcher::of(['filler', $name])[1];
        self::assertSame($name, $guess->name);
        self::assertSame($trace, $guess->trace);
        self::assertGreaterThanOrEqual(0.0, $guess->score);
        self::assertLessThanOrEqual(1.0, $guess->score);
        if (null !== $trace && $trace === $name) {
            self::assertSame(1.0, $guess->score, 'our own names are sure');
        }
    }

    public function testNoTraceIsGivenTwiceAndTheBestColumnHasIt(): void
    {
        $guesses = ColumnMatcher::of(['roll rate', 'gyro_roll_raw', 'gyro_roll_filtered', 'time', 'timestamp', 'throttle', 'thr']);
        $traces = array_values(array_filter(array_map(static fn (ColumnGuess $g): ?string => $g->trace, $guesses)));
        self::assertSame($traces, array_values(array_unique($traces)));
        self::assertSame('rate_measured_roll_dps', $guesses[1]->trace);
        self::assertSame('rate_filtered_roll_dps', $guesses[2]->trace);
        self::assertNull($guesses[0]->trace, 'nothing is left for it');
        self::assertSame('time_s', $guesses[3]->trace);
        self::assertNull($guesses[4]->trace);
    }

    public function testEveryOrderOfColumnsGivesTheSameTraces(): void
    {
        $names = [
            't',
            'roll_cmd',
            'pitch_cmd',
            'gyro_roll',
            'gyro_pitch',
            'gyro_roll_filt',
            'gyro_pitch_filt',
            'motor1',
            'motor2',
            'throttle',
            'battery',
        ];
        $of = static function (array $header): array {
            $by = [];
            foreach (ColumnMatcher::of(array_values(array_filter($header, 'is_string'))) as $g) {
                $by[$g->name] = $g->trace;
            }
            ksort($by);

            return $by;
        };
        $first = $of($names);
        mt_srand(5);
        for ($round = 0; $round < 60; ++$round) {
            shuffle($names);
            self::assertSame($first, $of($names), implode(', ', $names));
        }
        mt_srand();
    }

    public function testAnOrderOverrulesAndAWrongOneIsRefused(): void
    {
        $guesses = ColumnMatcher::of(['gyro_x', 'mystery'], ['mystery' => 'rate_measured_roll_dps', 'gyro_x' => null]);
        self::assertNull($guesses[0]->trace);
        self::assertSame('rate_measured_roll_dps', $guesses[1]->trace);
        self::assertTrue($guesses[1]->isSure());
        foreach ([['nobody' => 'time_s'], ['gyro_x' => 'bananas']] as $bad) {
            try {
                ColumnMatcher::of(['gyro_x', 'mystery'], $bad);
                self::fail('should be refused');
            } catch (LogError $e) {
                self::assertMatchesRegularExpression('~no column|no trace~', $e->getMessage());
            }
        }
    }

    public function testWhateverNamesComeNothingBreaks(): void
    {
        mt_srand(11);
        for ($round = 0; $round < 200; ++$round) {
            $header = [];
            for ($i = 0; $i < 12; ++$i) {
                $header[] = implode('', array_map(static fn (): string => mb_chr(mt_rand(32, 0x24F)), range(1, mt_rand(1, 20))));
            }
            foreach (ColumnMatcher::of($header) as $i => $g) {
                self::assertSame($header[$i], $g->name);
                self::assertTrue(null === $g->trace || 'time_s' === $g->trace || null !== Traces::unitOf($g->trace));
            }
        }
        mt_srand();
    }
}
