<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Incident\IncidentEvent;
use Ortholex\Core\Incident\Incidents;
use Ortholex\Core\Incident\Saying\Cause;
use Ortholex\Core\Incident\Saying\EventCode;
use Ortholex\Core\Incident\Saying\Evidence;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\Lag\LagSeries;
use Ortholex\Core\Noise\NoiseComparison;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\RidgeKind;
use Ortholex\Core\Noise\Ridges;
use Ortholex\Core\Report\Finding\FindingKind;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Core\Tuning\TermVerdict;
use Ortholex\Tests\Cases;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Logs whose truth is known because they were made here, by code that shares nothing with the analysis. */
final class KnownTruthTest extends TestCase
{
    #[DataProvider('ridges')]
    public function testStandingAndClimbingRidgesAreToldApart(int $rate, float $standing, float $atZero, float $perPct): void
    {
        $g = new KnownFlight($rate);
        $x = $throttle = [];
        $phase = $y1 = $y2 = 0.0;
        $pole = exp((-\M_PI * 3) / $rate);
        for ($i = 0, $n = 40 * $rate; $i < $n; ++$i) {
            $t = $i / $rate;
            $level = 20 + 60 * abs(fmod($t / 20, 2) - 1);
            $phase += (2 * \M_PI * ($atZero + $perPct * $level)) / $rate;
            $y = 2 * $pole * cos((2 * \M_PI * $standing) / $rate) * $y1 - $pole * $pole * $y2 + 0.05 * $g->gauss();
            $y2 = $y1;
            $y1 = $y;
            $x[] = 2 * sin($phase) + 0.8 * sin(2 * $phase) + 8 * $y + 0.8 * $g->gauss() + 60 * sin(8 * $t);
            $throttle[] = $level;
        }
        $ridges = Ridges::of(NoiseMap::of([$x], [$throttle], $rate), Axis::Roll);
        $found = array_values(array_filter($ridges, static fn (Ridge $r): bool => RidgeKind::Standing === $r->kind));
        self::assertCount(1, $found);
        self::assertEqualsWithDelta($standing, $found[0]->hz, 2.0);
        foreach ([1, 2] as $harmonic) {
            $climbing = array_values(
                array_filter($ridges, static fn (Ridge $r): bool => RidgeKind::Climbing === $r->kind && $r->harmonic === $harmonic),
            );
            self::assertCount(1, $climbing, "harmonic $harmonic");
            self::assertEqualsWithDelta($harmonic * $perPct, $climbing[0]->hzPerPct, 0.03 * $harmonic * $perPct);
        }
    }

    /** @return iterable<string, array{int, float, float, float}> */
    public static function ridges(): iterable
    {
        yield '500 Hz' => [500, 61.0, 20.0, 1.6];
        yield '1 kHz' => [1000, 187.0, 40.0, 2.6];
        yield '2 kHz' => [2000, 212.5, 60.0, 4.1];
        yield '4 kHz' => [4000, 94.3, 30.0, 3.2];
        yield '8 kHz' => [8000, 333.0, 50.0, 5.5];
    }

    /** Noise that falls with throttle is no motor, and no family hangs on it. */
    public function testWhatFallsWithThrottleDoesNotClimb(): void
    {
        $g = new KnownFlight(9);
        $x = $throttle = [];
        $a = $b = 0.0;
        for ($i = 0; $i < 40000; ++$i) {
            $level = 20 + 60 * abs(fmod($i / 20000, 2) - 1);
            $a += (2 * \M_PI * (60 - 0.4 * $level)) / 1000;
            $b += (2 * \M_PI * (50 + 3 * $level)) / 1000;
            $x[] = 2 * sin($a) + 2 * sin($b) + 0.5 * $g->gauss();
            $throttle[] = $level;
        }
        $climbing = array_values(
            array_filter(
                Ridges::of(NoiseMap::of([$x], [$throttle], 1000), Axis::Roll),
                static fn (Ridge $r): bool => RidgeKind::Climbing === $r->kind,
            ),
        );
        self::assertCount(1, $climbing);
        self::assertSame(1, $climbing[0]->harmonic);
        self::assertEqualsWithDelta(3.0, $climbing[0]->hzPerPct, 0.09);
    }

    public function testOverLittleThrottleNobodyTellsStandingFromClimbing(): void
    {
        $g = new KnownFlight(3);
        $x = $throttle = [];
        for ($i = 0; $i < 20000; ++$i) {
            $x[] = 3 * sin((2 * \M_PI * 140 * $i) / 1000) + 0.5 * $g->gauss();
            $throttle[] = 40 + 6 * sin($i / 900);
        }
        $map = NoiseMap::of([$x], [$throttle], 1000);
        foreach (Ridges::of($map, Axis::Roll) as $ridge) {
            self::assertSame(RidgeKind::CannotTell, $ridge->kind);
        }
        self::assertEqualsWithDelta(140, Ridges::of($map, Axis::Roll)[0]->hz ?? 0, 2.0);
        self::assertArrayNotHasKey(0, $map->density, 'never flown: no data');
        self::assertSame([], Ridges::of(NoiseMap::of([[1.0, 2.0]], [[50.0, 50.0]], 1000), Axis::Roll));
    }

    #[Group('slow')]
    public function testLagIsFoundWithinHalfAMillisecondAtAnyRate(): void
    {
        foreach ([500, 1000, 2000, 8000] as $rate) {
            foreach ([0.003, 0.0085, 0.0173, -0.004] as $delay) {
                [$x, $y] = self::delayed($rate, $delay, 24);
                $lag = AxisLag::of([$x], [$y], $rate);
                self::assertNotNull($lag);
                self::assertEqualsWithDelta(1e3 * $delay, $lag->ms, 0.25, "$rate Hz");
                self::assertLessThan(1.0, $lag->iqrMs);
            }
        }
        self::assertNull(AxisLag::of([array_fill(0, 9000, 0.0)], [array_fill(0, 9000, 1.0)], 1000), 'no motion');
        [$x] = self::delayed(1000, 0.01, 12);
        [, $z] = self::delayed(1000, 0.013, 12, 99);
        self::assertNull(AxisLag::of([$x], [$z], 1000), 'two that have nothing to do with each other');
    }

    /** Lags that fall by 6 ms per unit and cross zero at 1.5: told, with an interval that holds it. */
    public function testASeriesFindsWhereLagCrossesZero(): void
    {
        $flights = [];
        foreach ([0.6, 0.9, 1.2, 1.5, 1.8] as $value) {
            [$x, $y] = self::delayed(1000, 0.006 * (1.5 - $value), 20, (int) (100 * $value));
            $lag = AxisLag::of([$x], [$y], 1000);
            self::assertNotNull($lag);
            $flights[] = ['value' => $value, 'lag' => $lag];
        }
        $series = LagSeries::of($flights);
        self::assertNotNull($series);
        self::assertNotNull($series->crossing);
        self::assertEqualsWithDelta(1.5, $series->crossing[0], 0.03);
        self::assertLessThan(1.52, $series->crossing[1]);
        self::assertGreaterThan(1.48, $series->crossing[2]);
        self::assertEqualsWithDelta(1.5, $series->recommended ?? 0, 0.04);
        self::assertNull(LagSeries::of([$flights[0]]));
        self::assertSame([0.6, 0.9, 1.2, 1.5, 1.8], array_column($series->steps, 'value'));
    }

    /** Twenty seeded flights each: at least nineteen must be told right. */
    #[DataProvider('verdicts')]
    #[Group('slow')]
    public function testVerdictsOnPAndD(string $kind, TermState $verdict): void
    {
        $right = 0;
        for ($seed = 0; $seed < 20; ++$seed) {
            [$p, $d, $w, $rate, $hz] = self::terms($kind, $seed);
            $told = TermVerdict::of([$p], [$d], [$w], [0.0], $rate);
            $right += $told->verdict === $verdict && (TermState::Oscillation !== $verdict || abs(($told->hz ?? 0) - $hz) < 1.0) ? 1 : 0;
        }
        self::assertGreaterThanOrEqual(19, $right);
    }

    /** @return iterable<string, array{string, TermState}> */
    public static function verdicts(): iterable
    {
        yield 'P swings' => ['swing', TermState::Oscillation];
        yield 'D carries noise' => ['noise', TermState::Noise];
        yield 'neither' => ['clean', TermState::Clean];
    }

    public function testTooLittleFlightGivesNoVerdict(): void
    {
        self::assertSame(TermState::CannotTell, TermVerdict::of([[1.0, 2.0]], [[0.0, 0.0]], [[0.0, 0.0]], [0.0], 1000)->verdict);
    }

    /**
     * Every motor of a quad X and a hexa, at three throttles, in mixed moves and in flips; at least 95 in a hundred, the onset
     * within 0.1 s. The log ends two seconds later, as it does in the reeds.
     */
    #[Group('slow')]
    public function testTheMotorThatStoppedPushingIsNamed(): void
    {
        $hits = $inTime = $all = $number = 0;
        foreach ([KnownFlight::quadX(), KnownFlight::hexaX()] as $k => $motors) {
            foreach ([30.0, 45.0, 65.0] as $throttle) {
                foreach (['mixed', 'flips'] as $f => $moves) {
                    foreach (array_keys($motors) as $m => $place) {
                        if (!Cases::takes($number++, 3)) {
                            continue;
                        }
                        $incidents = Incidents::of(
                            (new KnownFlight(100 * $m + (int) $throttle + 7 * $f + 1000 * $k))->fly(
                                $motors,
                                $throttle,
                                $place,
                                8.0,
                                $moves,
                                10.0,
                            ),
                        );
                        ++$all;
                        $hits += ($incidents[0]->place ?? null) === $place ? 1 : 0;
                        $inTime += abs(($incidents[0]->atS ?? 0) - 8.0) < 0.1 ? 1 : 0;
                    }
                }
            }
        }
        self::assertSame(Cases::many(60, 20), $all);
        self::assertGreaterThanOrEqual(floor(0.95 * $all), $hits, "$hits of $all");
        self::assertGreaterThanOrEqual(floor(0.95 * $all), $inTime);
    }

    #[Group('slow')]
    public function testCleanFlightsHaveNoIncident(): void
    {
        for ($seed = 0; $seed < Cases::many(20, 8); ++$seed) {
            $log = (new KnownFlight(5000 + $seed))->fly(
                0 === $seed % 2 ? KnownFlight::hexaX() : KnownFlight::quadX(),
                [30.0, 45.0, 65.0][$seed % 3],
                null,
                0.0,
                $seed % 4 < 2 ? 'mixed' : 'flips',
                12,
            );
            self::assertSame([], Incidents::of($log), "seed $seed");
        }
    }

    public function testAnIncidentTellsCauseBeforeEffectAndRpmOutranks(): void
    {
        $log = (new KnownFlight(77))->fly(KnownFlight::quadX(), 45.0, 'rear_left', 6.0, 'mixed', 9.0, withRpm: true);
        $report = Report::of($log, FlightAnalysis::of($log));
        self::assertCount(1, $report->incidents);
        $incident = $report->incidents[0];
        self::assertSame('rear_left', $incident->place);
        self::assertSame(Evidence::RpmFell, $incident->evidence);
        self::assertSame(EventCode::MotorStopsPushing, $incident->timeline[0]->what->code);
        $times = array_map(static fn (IncidentEvent $e): float => $e->atS, $incident->timeline);
        $sorted = $times;
        sort($sorted);
        self::assertSame($sorted, $times);
        self::assertSame(Cause::Esc, $incident->causes()[0]);
        self::assertSame(FindingKind::Incident, $report->findings[0]->kind, 'the gravest comes first');
    }

    public function testAWreckIsOneLossAndSpeedsThatTheMotionContradictsAreNotBelieved(): void
    {
        $log = (new KnownFlight(77))->fly(KnownFlight::hexaX(), 45.0, 'rear_left', 6.0, 'mixed', 14.0, withRpm: true);
        foreach (
            [
                'all of them a second later' => [7.0, ['front_right', 'right', 'left', 'front_left', 'rear_right']],
                'one, five seconds later, that still pushes' => [11.0, ['front_right']],
            ] as $what => [$at, $dead]
        ) {
            $traces = [];
            foreach ($log->names() as $name) {
                $traces[$name] = $log->trace($name);
                if (str_starts_with($name, 'rpm_') && \in_array(substr($name, 4), $dead, true)) {
                    $traces[$name] = array_map(
                        static fn (float $v, int $i): float => $i < 1000 * $at ? $v : 0.0,
                        $traces[$name],
                        array_keys($traces[$name]),
                    );
                }
            }
            $found = Incidents::of(KnownFlight::of($traces, 1000));
            self::assertCount(1, $found, $what);
            self::assertSame('rear_left', $found[0]->place, $what);
            self::assertEqualsWithDelta(6.0, $found[0]->atS, 0.1, $what);
        }
    }

    /** One flight with 6 dB more between 80 and 200 Hz, the other at another resolution. */
    public function testTwoSpectraAreComparedByBands(): void
    {
        $a = array_map(static fn (int $k): float => -20 + ($k * 2 >= 80 && $k * 2 < 200 ? 6.0 : 0.2), range(0, 500));
        $b = array_fill(0, 1001, -20.0);
        $compared = NoiseComparison::of($a, 2.0, $b, 1.0);
        self::assertEqualsWithDelta(6.0, $compared->most()['db'] ?? 0, 1e-9);
        self::assertSame(80.0, $compared->most()['from_hz'] ?? 0);
        self::assertNull(NoiseComparison::of($b, 1.0, $b, 1.0)->most());
        self::assertSame([], NoiseComparison::of([1.0], 2.0, [1.0], 2.0)->bands);
    }

    public function testAnAxisThatRunsAgainstItsCommandIsSaid(): void
    {
        [$x, $y] = self::delayed(1000, 0.008, 15);
        $log = KnownFlight::of(
            ['setpoint_roll_dps' => $x, 'rate_measured_roll_dps' => array_map(static fn (float $v): float => -$v, $y)],
            1000,
        );
        self::assertSame(FindingKind::Sign, Report::of($log, FlightAnalysis::of($log))->findings[0]->kind);
    }

    /** @return array{list<float>, list<float>} a smooth command, and the same later by $delayS with noise */
    private static function delayed(int $rate, float $delayS, int $seconds, int $seed = 1): array
    {
        $g = new KnownFlight($rate + (int) (1e5 * abs($delayS)) + $seed);
        $n = $rate * $seconds;
        $smooth = [];
        $a = $b = 0.0;
        $step = 1 - exp((-2 * \M_PI * 3.5) / $rate);
        for ($i = 0; $i < $n + $rate; ++$i) {
            $a += $step * (900 * $g->gauss() * sqrt($rate / 1000) - $a);
            $b += $step * ($a - $b);
            $smooth[] = $b;
        }
        $x = $y = [];
        for ($i = 0; $i < $n; ++$i) {
            $at = $i + $rate / 2 - $delayS * $rate;
            $j = (int) floor($at);
            $x[] = $smooth[$i + intdiv($rate, 2)];
            $y[] = $smooth[$j] * (1 - $at + $j) + $smooth[$j + 1] * ($at - $j) + 3 * $g->gauss();
        }

        return [$x, $y];
    }

    /** @return array{list<float>, list<float>, list<float>, int, float} P, D, rate, sample rate, and the swing's frequency */
    private static function terms(string $kind, int $seed): array
    {
        $rate = [500, 1000, 2000, 4000][$seed % 4];
        $g = new KnownFlight(300 + $seed);
        $hz = 12 + 28 * $g->next();
        $p = $d = $w = [];
        $a = $b = $slow = $before = $phase = $size = 0.0;
        $move = 1 - exp((-2 * \M_PI * 3) / $rate);
        $low = 1 - exp((-2 * \M_PI * ('noise' === $kind ? 400 : 120)) / $rate);
        for ($i = 0, $n = 16 * $rate; $i < $n; ++$i) {
            $a += $move * (700 * $g->gauss() * sqrt($rate / 1000) - $a);
            $b += $move * ($a - $b);
            $size += (1 - exp(-1 / $rate / 0.4)) * (($g->next() < 0.7 ? 1.0 : 0.3) - $size);
            $phase += (2 * \M_PI * $hz * (1 + 0.01 * sin((7 * $i) / $rate))) / $rate;
            $turn =
                $b +
                ('noise' === $kind ? 8.0 : 1.0) * $g->gauss() +
                ('swing' === $kind ? (18 + 10 * $g->next()) * $size * sin($phase) : 0.0);
            $slow += $low * ($turn - $slow);
            $p[] = 0.25 * ($b - $slow);
            $d[] = ('noise' === $kind ? 2.0 : 0.8) * -0.0022 * ($slow - $before) * $rate;
            $w[] = $before = $slow;
        }

        return [$p, $d, $w, $rate, $hz];
    }
}
