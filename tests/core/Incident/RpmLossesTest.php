<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Incident;

use Ortholex\Core\Incident\FlightRun;
use Ortholex\Core\Incident\RpmLosses;
use Ortholex\Core\Incident\Suspicion;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Speeds that were logged: a motor that falls behind and stays there is lost; one that only takes its time is not. */
final class RpmLossesTest extends TestCase
{
    private const RATE_HZ = 500;
    private const SECONDS = 16;
    private const TOP_RPM = 11000.0;
    private const MOTORS = ['front_right', 'rear_right', 'rear_left', 'front_left'];

    /** @return iterable<string, array{float}> time constant of a rotor, s */
    public static function rotors(): iterable
    {
        yield 'three-inch' => [0.015];
        yield 'five-inch' => [0.03];
        yield 'eight-inch' => [0.06];
        yield 'heavier than any of ours' => [0.12];
    }

    /** From idle to a third of full output and back, again and again: slow to come up, and never lost. */
    #[DataProvider('rotors')]
    public function testAMotorCalledUpFromIdleIsNotLost(float $tau): void
    {
        $calls = static fn (int $m, float $t): float => fmod($t + 0.3 * $m, 1.7) < 0.9 ? 5.0 : 20.0 + 15.0 * $m;
        self::assertSame([], RpmLosses::of(self::logged($tau, $calls, null, 0.0)));
    }

    /** One after the other is let go in mid-flight, at any of these rotors: it is found, at its time, and no other. */
    #[DataProvider('rotors')]
    public function testAMotorThatStopsIsFoundAtItsTime(float $tau): void
    {
        foreach (array_keys(self::MOTORS) as $lost) {
            foreach ([6.0, 9.4, 12.7] as $at) {
                $found = RpmLosses::of(self::logged($tau, self::flown(...), $lost, $at));
                self::assertCount(1, $found, "motor $lost at $at s");
                self::assertSame($lost, $found[0]->stopped);
                self::assertEqualsWithDelta($at, $found[0]->from / self::RATE_HZ, 0.1 + 2 * $tau);
            }
        }
    }

    public function testOneThatRunsAgainIsLostForAsLongAsItStood(): void
    {
        $run = self::logged(0.03, self::flown(...), 1, 7.0, 9.0);
        $found = RpmLosses::of($run);
        self::assertSame([1], array_map(static fn (Suspicion $s): ?int => $s->stopped, $found));
        self::assertEqualsWithDelta(9.0, $found[0]->to / self::RATE_HZ, 0.3);
    }

    /** Half of the speed that the output usually gives is the line between weak and lost. */
    public function testAWeakMotorIsNotLost(): void
    {
        $traces = self::traces(0.03, self::flown(...), null, 0.0);
        foreach ($traces['rpm_rear_left'] as $i => $rpm) {
            $traces['rpm_rear_left'][$i] = $i > 4000 ? 0.7 * $rpm : $rpm;
        }
        self::assertSame([], RpmLosses::of(FlightRun::allOf(KnownFlight::of($traces, self::RATE_HZ))[0]));
    }

    /** What was never seen to run may be a motor whose speed is not told. */
    public function testAMotorThatNeverRanIsNotAccused(): void
    {
        $traces = self::traces(0.03, self::flown(...), null, 0.0);
        $traces['rpm_rear_left'] = array_fill(0, \count($traces['rpm_rear_left']), 0.0);
        self::assertSame([], RpmLosses::of(FlightRun::allOf(KnownFlight::of($traces, self::RATE_HZ))[0]));
    }

    private static function flown(int $motor, float $t): float
    {
        return 38.0 + 14.0 * sin(2.1 * $t + $motor) + 6.0 * sin(7.3 * $t + 2 * $motor);
    }

    /** @param \Closure(int, float): float $output by motor and time, % */
    private static function logged(float $tau, \Closure $output, ?int $lost, float $at, float $until = \INF): FlightRun
    {
        return FlightRun::allOf(KnownFlight::of(self::traces($tau, $output, $lost, $at, $until), self::RATE_HZ))[0];
    }

    /**
     * @param \Closure(int, float): float $output
     *
     * @return array<string, list<float>>
     */
    private static function traces(float $tau, \Closure $output, ?int $lost, float $at, float $until = \INF): array
    {
        $traces = [];
        $speed = array_fill(0, \count(self::MOTORS), 0.0);
        $keep = exp(-1 / self::RATE_HZ / $tau);
        for ($k = 0; $k < self::SECONDS * self::RATE_HZ; ++$k) {
            $t = $k / self::RATE_HZ;
            foreach (self::MOTORS as $m => $place) {
                $pct = $output($m, $t);
                $goal = $m === $lost && $t >= $at && $t < $until ? 0.0 : self::TOP_RPM * sqrt($pct / 100);
                $speed[$m] = $goal + $keep * ($speed[$m] - $goal);
                $traces["output_{$place}_pct"][] = $pct;
                $traces["rpm_$place"][] = $speed[$m];
            }
            foreach (['roll', 'pitch', 'yaw'] as $i => $axis) {
                $traces["rate_filtered_{$axis}_dps"][] = 40 * sin(3 * $t + $i);
                $traces["setpoint_{$axis}_dps"][] = 40 * sin(3 * $t + 0.02 + $i);
            }
        }

        return $traces;
    }
}
