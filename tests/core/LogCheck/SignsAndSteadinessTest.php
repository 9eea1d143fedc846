<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\LogCheck;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Lag\Alignment;
use Ortholex\Core\LogCheck\SignCheck;
use Ortholex\Core\LogCheck\Steadiness;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\FlyInstead;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Tests\Cases;
use Ortholex\Tests\core\Report\KnownFlight;
use Ortholex\Tests\core\Step\KnownLoop;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Axes counted the other way round, a D that varies, and flights laid over each other. */
final class SignsAndSteadinessTest extends TestCase
{
    /** @var array<int, FlightLog> flights by seed: each is turned in several ways */
    private static array $flown = [];

    public static function tearDownAfterClass(): void
    {
        self::$flown = [];
    }

    /** @return iterable<string, array{int, string, list<string>, list<string>}> seed, axis, what is turned, what is to be found */
    public static function turned(): iterable
    {
        foreach (Cases::all() ? [1, 2, 3] : [1, 2] as $seed) {
            foreach (Cases::all() ? ['roll', 'pitch'] : [['pitch', 'roll'][$seed % 2]] as $axis) {
                $set = "setpoint_{$axis}_dps";
                $rate = "rate_filtered_{$axis}_dps";
                yield "rotation of $axis, flight $seed" => [$seed, $axis, [$rate], [$rate]];
                yield "command of $axis, flight $seed" => [$seed, $axis, [$set], [$set]];
                yield "both of $axis, flight $seed" => [$seed, $axis, [$set, $rate], [$set, $rate]];
            }
            // Yaw's mixer is not known from places: only that the two disagree.
            yield "rotation of yaw, flight $seed" => [$seed, 'yaw', ['rate_filtered_yaw_dps'], ['rate_filtered_yaw_dps']];
        }
    }

    /**
     * @param list<string> $turn
     * @param list<string> $found
     */
    #[DataProvider('turned')]
    public function testWhatIsTurnedIsFoundAndTurningItMendsIt(int $seed, string $axis, array $turn, array $found): void
    {
        $motors = 0 === $seed % 2 ? KnownFlight::hexaX() : KnownFlight::quadX();
        $log = (self::$flown[$seed] ??= (new KnownFlight($seed))->fly($motors, 45.0, null, 0.0, 'mixed', 16))->with([], $turn);
        $checks = self::byAxis($log);
        self::assertSame($found, $checks[$axis]->turn);
        self::assertNotSame('', $checks[$axis]->what);
        foreach (array_diff(array_keys($checks), [$axis]) as $other) {
            self::assertSame([], $checks[$other]->turn, $other);
        }
        foreach (self::byAxis($log->with([], $checks[$axis]->turn)) as $check) {
            self::assertSame([], $check->turn);
        }
    }

    #[Group('slow')]
    public function testCleanFlightsAreCountedAsWeDo(): void
    {
        for ($seed = 0; $seed < Cases::many(12, 6); ++$seed) {
            $log = (new KnownFlight(70 + $seed))->fly(
                0 === $seed % 2 ? KnownFlight::hexaX() : KnownFlight::quadX(),
                [30.0, 45.0, 65.0][$seed % 3],
                null,
                0.0,
                $seed % 4 < 2 ? 'mixed' : 'flips',
                12,
                [500, 1000, 2000][$seed % 3],
            );
            foreach (SignCheck::of($log) as $check) {
                self::assertSame([], $check->turn, "flight $seed, {$check->axis->value}");
                if (Axis::Yaw !== $check->axis) {
                    self::assertGreaterThan(0.9, $check->points, "flight $seed, {$check->axis->value}");
                }
            }
        }
    }

    public function testMotorsByNumberTellNothingOfTheMixer(): void
    {
        $log = (new KnownFlight(5))->fly(KnownFlight::quadX(), 45.0, null, 0.0, 'mixed', 10)->with(
            [
                'output_front_right_pct' => 'output_1_pct',
                'output_rear_right_pct' => 'output_2_pct',
                'output_rear_left_pct' => 'output_3_pct',
                'output_front_left_pct' => 'output_4_pct',
            ],
            ['setpoint_roll_dps', 'rate_filtered_roll_dps'],
        );
        self::assertNull(self::byAxis($log)['roll']->points);
        self::assertSame([], self::byAxis($log)['roll']->turn, 'that both are turned cannot be seen then');
        self::assertSame([], SignCheck::of(KnownFlight::of(['throttle_pct' => array_fill(0, 500, 40.0)], 1000)));
    }

    /** @return iterable<string, array{int, float}> */
    public static function filters(): iterable
    {
        foreach ([500, 1000, 2000, 4000] as $rate) {
            foreach ([40.0, 95.0, 300.0] as $hz) {
                yield "$rate Hz, D filtered at $hz Hz" => [$rate, $hz];
            }
        }
    }

    #[DataProvider('filters')]
    public function testADThatStaysIsSteadyWhateverItsFilter(int $rate, float $hz): void
    {
        $spread = Steadiness::ofD(self::withD($rate, $hz, static fn (float $t): float => 1.0), Axis::Roll);
        self::assertNotNull($spread);
        self::assertLessThan(0.1, $spread);
    }

    #[DataProvider('filters')]
    public function testADThatVariesIsMeasured(int $rate, float $hz): void
    {
        // Between 0.7 and 1.3 in slow steps: 90th less 10th percentile is 0.6 of the middle.
        $spread = Steadiness::ofD(self::withD($rate, $hz, static fn (float $t): float => 0 === (int) ($t / 4) % 2 ? 0.7 : 1.3), Axis::Roll);
        self::assertNotNull($spread);
        self::assertGreaterThan(0.4, $spread);
        self::assertLessThan(1.0, $spread);
    }

    public function testAVaryingDAndFeedForwardAreSaidWithWhatToFlyInstead(): void
    {
        $log = self::withD(1000, 95.0, static fn (float $t): float => 0 === (int) ($t / 4) % 2 ? 0.7 : 1.3);
        $confidence = FlightAnalysis::of($log, false)->axes['roll']->confidence;
        $varied = array_values(array_filter($confidence->reasons, static fn (Fact $f): bool => $f->is(ConfidenceReason::DVaried)));
        self::assertCount(1, $varied);
        self::assertEqualsWithDelta(60.0, $varied[0]->figures['pct'] ?? 0.0, 25.0);
        self::assertNotSame(Grade::Firm, $confidence->grade);
        self::assertSame(FlyInstead::WithSteadyD, $confidence->flyInstead);
        self::assertNull(Steadiness::ofD(KnownFlight::of(['rate_filtered_roll_dps' => [0.0, 1.0, 2.0]], 1000), Axis::Roll));
        self::assertNull(
            Steadiness::ofD(
                KnownFlight::of(['rate_filtered_roll_dps' => array_fill(0, 9000, 0.0), 'term_d_roll' => array_fill(0, 9000, 0.0)], 1000),
                Axis::Roll,
            ),
            'nothing moved, so nothing is told',
        );
    }

    /** @return iterable<string, array{float, int, int}> */
    public static function shifts(): iterable
    {
        yield 'begun later' => [3.25, 1000, 1000];
        yield 'begun earlier' => [-4.5, 1000, 1000];
        yield 'other rates' => [2.0, 2000, 500];
        yield 'not at all' => [0.0, 1000, 1000];
    }

    #[DataProvider('shifts')]
    public function testTheSameHandsAreLaidOverEachOther(float $shift, int $rateA, int $rateB): void
    {
        $a = self::sticks(9, 0.0, $rateA, 1);
        $b = self::sticks(9, $shift, $rateB, 2);
        $found = Alignment::of($a, $b);
        self::assertNotNull($found);
        self::assertTrue($found->isAlike());
        self::assertEqualsWithDelta($shift, $found->shiftS, 0.06);
        self::assertEqualsWithDelta(-$shift, Alignment::of($b, $a)->shiftS ?? 99, 0.06, 'the other way round, the other way');
    }

    public function testOtherHandsAreNotAlikeAndBarelyLoggedOnesAreNotCompared(): void
    {
        self::assertFalse(Alignment::of(self::sticks(9, 0.0, 1000, 1), self::sticks(10, 0.0, 1000, 1))?->isAlike() ?? true);
        self::assertNull(
            Alignment::of(self::sticks(9, 0.0, 1000, 1), KnownFlight::of(['throttle_pct' => array_fill(0, 1000, 40.0)], 1000)),
            'a second is too short',
        );
        self::assertNull(Alignment::of(self::sticks(9, 0.0, 1000, 1), KnownFlight::of(['battery_v' => array_fill(0, 20000, 16.0)], 1000)));
        self::assertNull(
            Alignment::of(self::sticks(9, 0.0, 1000, 1), KnownFlight::of(['throttle_pct' => array_fill(0, 20000, 40.0)], 1000)),
            'a stick that rests',
        );
    }

    public function testASettingOfTheHeadIsReadByItsWholeName(): void
    {
        $log = KnownFlight::read(
            "# gain.roll.d: 2.9\n# gain.roll.added_d: 0.5 # more\n# notch.motor.orders: '1,2'\n# craft: \"Two Words\"\n".
                "time_s,throttle_pct\n0,1\n0.001,2\n0.002,2\n",
        );
        self::assertSame('2.9', $log->setting('gain.roll.d'));
        self::assertSame('0.5', $log->setting('gain.roll.added_d'));
        self::assertSame('1,2', $log->setting('notch.motor.orders'));
        self::assertSame('Two Words', $log->setting('craft'));
        self::assertNull($log->setting('roll.d'));
        self::assertNull($log->setting('gainXroll.d'));
    }

    /** @return array<string, SignCheck> */
    private static function byAxis(FlightLog $log): array
    {
        $checks = SignCheck::of($log);

        return array_combine(array_map(static fn (SignCheck $c): string => $c->axis->value, $checks), $checks);
    }

    /** A known loop with a D term of its own: filtered once, times a gain of its time. */
    private static function withD(int $rate, float $hz, \Closure $gain): FlightLog
    {
        [$x, $y] = (new KnownLoop(70, 0.5, 0.003))->fly($rate, 24, 35, 8);
        $d = [];
        $slow = $before = 0.0;
        $a = 1 - exp((-2 * \M_PI * $hz) / $rate);
        foreach ($y as $i => $w) {
            $slow += $a * ($w - $slow);
            $d[] = -0.002 * $gain($i / $rate) * ($slow - $before) * $rate;
            $before = $slow;
        }

        return KnownFlight::of(
            ['setpoint_roll_dps' => $x, 'rate_measured_roll_dps' => $y, 'rate_filtered_roll_dps' => $y, 'term_d_roll' => $d],
            $rate,
        );
    }

    /** Hands of a seed, begun later by a shift, with a tremble of their own. */
    private static function sticks(int $hands, float $shift, int $rate, int $tremble): FlightLog
    {
        $g = new KnownFlight($hands);
        $goals = array_map(static fn (): array => [100 * $g->next(), 400 * (2 * $g->next() - 1)], range(1, 80));
        $n = new KnownFlight(100 + $tremble);
        $throttle = $roll = [];
        for ($i = 0; $i < 24 * $rate; ++$i) {
            // Time of the hands at this sample.
            $t = $i / $rate + $shift + 8;
            [$a, $b] = [$goals[(int) ($t / 0.5)], $goals[(int) ($t / 0.5) + 1]];
            $f = fmod($t / 0.5, 1.0);
            $throttle[] = $a[0] + $f * ($b[0] - $a[0]) + $n->gauss();
            $roll[] = $a[1] + $f * ($b[1] - $a[1]) + 5 * $n->gauss();
        }

        return KnownFlight::of(['throttle_pct' => $throttle, 'setpoint_roll_dps' => $roll], $rate);
    }
}
