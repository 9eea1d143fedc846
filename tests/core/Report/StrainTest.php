<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Report;

use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\Report\Strain;
use PHPUnit\Framework\TestCase;

/** Flights whose shaking and whose outputs are known by what they were made of. */
final class StrainTest extends TestCase
{
    private const HZ = 1000;

    public function testShakingAfterADropIsToldApartFromTheRest(): void
    {
        // Twice from 60 to 15 %, at 4 and 8 s; after each, roll swings with 20 deg/s at 18 Hz for 0.6 s, and with 2 always.
        $wash = static fn (float $t): bool => ($t >= 4.02 && $t < 4.6) || ($t >= 8.02 && $t < 8.6);
        $strain = Strain::of($this->log([
            'throttle_pct' => static fn (float $t): float => ($t >= 4 && $t < 6) || $t >= 8 ? 15.0 : 60.0,
            'setpoint_roll_dps' => static fn (float $t): float => 0.0,
            'rate_filtered_roll_dps' => static fn (float $t): float => ($wash($t) ? 20.0 : 2.0) * sin(2 * \M_PI * 18 * $t),
        ]));
        self::assertSame(2, $strain->drops);
        self::assertNull($strain->fullShare, 'no outputs were logged');
        // A moving mean over n samples lets sin(n x / 2) / (n sin(x / 2)) of a sine through, x being its turn from one to the next:
        // four at 1,000 a second, then three less thirty-seven at 250.
        $mean = static fn (int $n, float $x): float => sin($n * $x / 2) / ($n * sin($x / 2));
        $x = 2 * \M_PI * 18 / 250;
        $gain = $mean(4, $x / 4) * ($mean(3, $x) - $mean(37, $x));
        self::assertEqualsWithDelta(0.82, $gain, 0.01);
        self::assertEqualsWithDelta((20 / \M_SQRT2) * $gain, $strain->washDps['roll'], 0.8);
        self::assertEqualsWithDelta((2 / \M_SQRT2) * $gain, $strain->calmDps['roll'], 0.05);
        self::assertArrayNotHasKey('pitch', $strain->washDps);
    }

    public function testWhatTheStickAskedForAndWhatMotorsShakeWithIsNoWash(): void
    {
        $strain = Strain::of($this->log([
            'throttle_pct' => static fn (float $t): float => fmod($t, 2.0) < 1 ? 60.0 : 10.0,
            // A roll at full stick after each drop, answered late; and 180 Hz all the while.
            'setpoint_roll_dps' => static fn (float $t): float => fmod($t, 2.0) >= 1.1 && fmod($t, 2.0) < 1.4 ? 600.0 : 0.0,
            'rate_filtered_roll_dps' => static fn (float $t): float => (fmod($t, 2.0) >= 1.115 && fmod($t, 2.0) < 1.415 ? 600.0 : 0.0)
                + 30 * sin(2 * \M_PI * 180 * $t),
        ]));
        self::assertGreaterThan(4, $strain->drops);
        self::assertLessThan(2.0, $strain->washDps['roll'] ?? 0.0);
        self::assertLessThan(2.0, $strain->calmDps['roll']);
    }

    public function testOutputsAtTheirEndAreCountedByTimeNotByMotor(): void
    {
        $top = 96.0;
        $full = static fn (float $from, float $to): \Closure => static fn (float $t): float => $t >= $from && $t < $to ? $top : 40.0;
        $strain = Strain::of($this->log([
            'output_front_left_pct' => $full(2.0, 2.3),
            'output_front_right_pct' => $full(2.2, 2.5),
            'output_rear_left_pct' => $full(5.0, 5.1),
            'output_rear_right_pct' => static fn (float $t): float => 40.0,
        ]));
        // From 2.0 to 2.5 s without a break, and 0.1 s more, of 12 s.
        self::assertEqualsWithDelta(0.6 / 12, $strain->fullShare ?? 0.0, 0.001);
        self::assertEqualsWithDelta(0.5, $strain->longestS, 0.005);
        self::assertSame(0, $strain->drops);
        self::assertSame([], $strain->washDps, 'neither throttle nor rates were logged');
    }

    public function testASlowLogTellsNoShaking(): void
    {
        $strain = Strain::of($this->log([
            'throttle_pct' => static fn (float $t): float => fmod($t, 4.0) < 2 ? 60.0 : 10.0,
            'setpoint_roll_dps' => static fn (float $t): float => 0.0,
            'rate_filtered_roll_dps' => static fn (float $t): float => 9 * sin($t),
        ], 50));
        self::assertSame([0, [], []], [$strain->drops, $strain->washDps, $strain->calmDps]);
    }

    /** @param array<string, \Closure(float): float> $traces of the time in s */
    private function log(array $traces, int $hz = self::HZ): FlightLog
    {
        $times = array_map(static fn (int $i): float => $i / $hz, range(0, 12 * $hz - 1));
        $columns = array_map(static fn (\Closure $of): Column => self::column(array_map($of, $times)), $traces);

        return new FlightLog(SampleClock::of(self::column($times)), $columns, '', new BadRows(0, []));
    }

    /** @param list<float> $values */
    private static function column(array $values): Column
    {
        return Column::ofBytes(FlightLog::packFloats($values));
    }
}
