<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** One flight in many hands' units and names: either it comes out in ours, or it is asked. */
final class ForeignUnitsTest extends TestCase
{
    private const DPS = 180 / \M_PI;

    /**
     * @param array<string, array{string, float}> $columns of each trace its name there, and our unit over theirs
     * @param list<string>                        $asked   columns that must be asked
     */
    #[DataProvider('manners')]
    public function testItComesOutInOurUnitsOrIsAsked(array $columns, array $asked, float $size = 400.0, float $timeFactor = 1.0): void
    {
        [$path, $truth] = self::written($columns, $size, $timeFactor);
        try {
            $plan = LogPlan::of($path);
            $unsure = array_map(static fn ($g): string => $g->name, $plan->unsure());
            foreach ($asked as $name) {
                self::assertContains($name, $unsure);
            }
            $log = LogReader::readFile($path, plan: $plan);
        } finally {
            unlink($path);
        }
        self::assertEqualsWithDelta(1000, $log->clock->rateHz, 1);
        foreach ($columns as $trace => [$name]) {
            if (\in_array($name, $unsure, true)) {
                continue;
            }
            self::assertTrue($log->has($trace), "$name should be $trace; there are ".implode(', ', $log->names()));
            self::assertAlike($truth[$trace], $log->trace($trace), $name);
        }
    }

    /** @return iterable<string, array{0: array<string, array{string, float}>, 1: list<string>, 2?: float, 3?: float}> */
    public static function manners(): iterable
    {
        $all = static fn (string $set, string $rate, float $setBy, float $rateBy, int $first = 0): array => [
            'setpoint_roll_dps' => [\sprintf($set, $first), $setBy],
            'setpoint_pitch_dps' => [\sprintf($set, $first + 1), $setBy],
            'setpoint_yaw_dps' => [\sprintf($set, $first + 2), $setBy],
            'rate_measured_roll_dps' => [\sprintf($rate, $first), $rateBy],
            'rate_measured_pitch_dps' => [\sprintf($rate, $first + 1), $rateBy],
            'rate_measured_yaw_dps' => [\sprintf($rate, $first + 2), $rateBy],
        ];
        yield 'axes from 1 to 3' => [$all('setpoint_%d', 'gyro_%d', 1, 1, 1), []];
        yield 'axes from 0 to 2' => [$all('setpoint[%d]', 'gyro[%d]', 1, 1), []];
        yield 'tenths that the name says' => [$all('setpoint[%d] (deg/s)', 'gyro[%d] (0.1 deg/s)', 1, 10), []];
        yield 'tenths that no name says' => [$all('setpoint[%d]', 'gyro[%d]', 1, 10), []];
        yield 'tenths though the name says degrees' => [$all('setpoint[%d] (deg/s)', 'gyro[%d] (deg/s)', 1, 10), []];
        yield 'raw counts beside degrees' => [$all('setpoint[%d]', 'gyro[%d]', 1, 32768 / 2000), []];
        yield 'rad/s beside degrees' => [$all('setpoint[%d]', 'gyro[%d]', 1, 1 / self::DPS), []];
        yield 'mrad/s' => [$all('setpoint[%d] mrad/s', 'gyro[%d] mrad/s', 1000 / self::DPS, 1000 / self::DPS), []];
        yield 'a calm flight without units' => [$all('setpoint[%d]', 'gyro[%d]', 1, 1), ['gyro[0]', 'setpoint[1]'], 14.0];
        yield 'nanoseconds' => [$all('setpoint[%d]', 'gyro[%d]', 1, 1), [], 400.0, 1e9];
        yield 'letters alone' => [
            [
                'setpoint_roll_dps' => ['sp0', 1.0],
                'rate_measured_roll_dps' => ['p', 1.0],
                'rate_measured_pitch_dps' => ['q', 1.0],
                'rate_measured_yaw_dps' => ['r', 1.0],
            ],
            ['p', 'q', 'r'],
        ];
        yield 'outputs by u and by place' => [
            [
                ...$all('setpoint[%d]', 'gyro[%d]', 1, 1),
                'output_1_pct' => ['u1', 0.01],
                'output_2_pct' => ['u2', 0.01],
                'output_3_pct' => ['u3', 0.01],
            ],
            [],
        ];
        yield 'outputs by place alone' => [
            [
                ...$all('setpoint[%d]', 'gyro[%d]', 1, 1),
                'output_front_left_pct' => ['front_left', 1.0],
                'output_rear_right_pct' => ['rear right', 1.0],
            ],
            ['front_left', 'rear right'],
        ];
        $six = $all('setpoint[%d]', 'gyro[%d]', 1, 1);
        yield 'a fourth setpoint' => [[...$six, 'throttle_pct' => ['setpoint[3]', 1.0]], ['setpoint[3]']];
        yield 'throttle to either side of nothing' => [[...$six, 'throttle_pct' => ['throttle', 0.02]], []];
    }

    public function testAnErrorIsNoRate(): void
    {
        $columns = ['setpoint_roll_dps' => ['setpoint[0]', 1.0], 'rate_measured_roll_dps' => ['roll rate error', 1.0]];
        [$path] = self::written($columns, 400.0, 1.0);
        $log = LogReader::readFile($path);
        unlink($path);
        self::assertSame(['setpoint_roll_dps'], $log->names());
        self::assertSame(['roll rate error'], $log->leftOut);
    }

    public function testAUnitCanBeOrdered(): void
    {
        [$path, $truth] = self::written(['rate_measured_roll_dps' => ['w', 2.0]], 400.0, 1.0);
        try {
            $log = LogReader::readFile($path, plan: LogPlan::of($path, ['w' => 'rate_measured_roll_dps:rad/s']));
            $turned = array_map(static fn (float $v): float => $v * 2 * self::DPS, $truth['rate_measured_roll_dps']);
            self::assertAlike($turned, $log->trace('rate_measured_roll_dps'), 'rad/s');
            $this->expectException(LogError::class);
            $this->expectExceptionMessage('knots');
            LogPlan::of($path, ['w' => 'rate_measured_roll_dps:knots']);
        } finally {
            unlink($path);
        }
    }

    /**
     * @param array<string, array{string, float}> $columns
     *
     * @return array{string, array<string, list<float>>} path, and the truth
     */
    private static function written(array $columns, float $size, float $timeFactor): array
    {
        $g = new KnownFlight(4);
        $truth = [];
        $state = array_fill(0, 6, 0.0);
        $goal = [0.0, 0.0, 0.0];
        $lines = ['time,'.implode(',', array_map(static fn (array $c): string => '"'.$c[0].'"', $columns))];
        for ($i = 0; $i < 6000; ++$i) {
            for ($a = 0; $a < 3; ++$a) {
                if (0 === ($i + 90 * $a) % 350) {
                    $goal[$a] = $size * (2 * $g->next() - 1);
                }
                $state[$a] += 0.02 * ($goal[$a] - $state[$a]);
                $state[3 + $a] += 0.08 * ($state[$a] - $state[3 + $a]);
            }
            $row = [\sprintf('%.0F', $timeFactor * $i / 1000)];
            if (1.0 === $timeFactor) {
                $row = [\sprintf('%.3F', $i / 1000)];
            }
            foreach ($columns as $trace => [, $by]) {
                $axis = str_contains($trace, 'roll') ? 0 : (str_contains($trace, 'pitch') ? 1 : 2);
                $value = match (true) {
                    str_starts_with($trace, 'setpoint') => $state[$axis],
                    str_starts_with($trace, 'rate') => $state[3 + $axis] + 0.002 * $size * $g->gauss(),
                    default => 50 + 44 * sin($i / 300 + \strlen($trace)),
                };
                $truth[$trace][] = $value;
                $theirs = 'throttle' === ($columns[$trace][0] ?? '') ? ($value - 50) * 0.02 : $value * $by;
                $row[] = \sprintf('%.4F', $theirs);
            }
            $lines[] = implode(',', $row);
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'units');
        file_put_contents($path, implode("\n", $lines)."\n");

        return [$path, $truth];
    }

    /**
     * @param list<float> $expected
     * @param list<float> $values
     */
    private static function assertAlike(array $expected, array $values, string $what): void
    {
        $size = max(array_map(abs(...), $expected));
        foreach ([100, 2500, 5900] as $i) {
            self::assertEqualsWithDelta($expected[$i], $values[$i], 0.002 * $size, "$what, row $i");
        }
    }
}
