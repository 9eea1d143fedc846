<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\ColumnGuess;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\FlightLog\Reading\RateAuthority;
use Ortholex\Core\FlightLog\Reading\RateSteps;
use Ortholex\Core\FlightLog\Units\UnitSource;
use Ortholex\Tests\core\Report\KnownFlight;
use Ortholex\Tests\core\Truth\TruthCraft;
use Ortholex\Tests\core\Truth\TruthFlight;
use Ortholex\Tests\core\Truth\TruthMoves;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The unit of a rate without a setpoint: by the steps of its gyro, and by what the outputs do to a craft. */
final class RateAloneTest extends TestCase
{
    private const DPS = 180 / \M_PI;

    /** @var array<string, FlightLog> */
    private static array $flights = [];

    /** A unit in so many per deg/s, and how it is written. */
    private const WRITTEN = [
        'deg/s' => [1.0, '%.3F'],
        'rad/s' => [1 / self::DPS, '%.5F'],
        'mrad/s' => [1000 / self::DPS, '%.2F'],
        '0.1 deg/s' => [10.0, '%.2F'],
        'counts of 2000 deg/s' => [32768 / 2000, '%.0F'],
    ];

    #[DataProvider('gyros')]
    public function testCountsOfAGyroKeepTheirDistanceInAnyUnit(float $countsPerDps, string $unit, ?string $found): void
    {
        [$by, $format] = self::WRITTEN[$unit];
        $values = array_map(
            static fn (int $i): float => (float) \sprintf($format, round(90 * sin($i / 9.0) + 40 * sin($i / 2.3)) / $countsPerDps * $by),
            range(0, 400),
        );
        self::assertSame($found, RateSteps::unit($values)?->unit);
    }

    /** @return iterable<string, array{float, string, string|null}> */
    public static function gyros(): iterable
    {
        $gyros = ['2000 deg/s' => 32768 / 2000, '1000 deg/s' => 32768 / 1000, '500 deg/s' => 65.5, '16.4 a deg/s' => 16.4];
        foreach ($gyros as $gyro => $counts) {
            foreach (array_keys(self::WRITTEN) as $unit) {
                $whole = str_starts_with($unit, 'counts');
                // Whole numbers of another range are no steps of this one.
                yield "$gyro in $unit" => [$counts, $unit, $whole ? null : $unit];
            }
        }
    }

    public function testWhatIsFilteredOrRoundedTellsNothing(): void
    {
        $g = new KnownFlight(8);
        $noise = array_map(static fn (): float => 30 * $g->gauss(), range(0, 500));
        self::assertNull(RateSteps::unit($noise));
        foreach ([0, 1, 2] as $digits) {
            self::assertNull(RateSteps::unit(array_map(static fn (float $v): float => round($v, $digits), $noise)), "$digits digits");
        }
        self::assertNull(RateSteps::unit([]));
        self::assertNull(RateSteps::unit([0.0, 0.061035, 0.12207]), 'three values lie on many steps');
        self::assertNull(RateSteps::unit(array_fill(0, 400, 0.061035)));
    }

    /** A calm flight that is asked about where nothing but its range is known (ForeignUnitsTest) is not where its values are counts. */
    public function testACalmFlightOnTheStepsOfAGyroIsNotAsked(): void
    {
        $lines = ['time_s,"setpoint[0]","gyro[0]"'];
        for ($i = 0; $i < 4000; ++$i) {
            $set = 9 * sin($i / 400) + 4 * sin($i / 90);
            $lines[] = \sprintf('%.3F,%.2F,%.5F', $i / 1000, $set / self::DPS, round($set * 16.384) / 16.384 / self::DPS);
        }
        $plan = self::plan(implode("\n", $lines)."\n");
        self::assertSame([], $plan->unsure());
        self::assertSame('rad/s', $plan->units['rate_measured_roll_dps']->unit);
        self::assertSame(UnitSource::Steps, $plan->units['rate_measured_roll_dps']->why);
        self::assertSame('rad/s', $plan->units['setpoint_roll_dps']->unit);
    }

    public function testStepsAgainstANameAreAsked(): void
    {
        $lines = ['time_s,"gyro[0] (deg/s)"'];
        for ($i = 0; $i < 4000; ++$i) {
            $lines[] = \sprintf('%.3F,%.5F', $i / 1000, round(1500 * sin($i / 200)) / 16.384 / self::DPS);
        }
        $plan = self::plan(implode("\n", $lines)."\n");
        self::assertSame('rad/s', $plan->units['rate_measured_roll_dps']->unit);
        self::assertSame(['gyro[0] (deg/s)'], array_map(static fn ($g): string => $g->name, $plan->unsure()));
    }

    /** One side full and none on the other: 20,000 deg/s², reached as rotors reach it; hover at 0.4. */
    public function testTheAuthorityOfAKnownCraft(): void
    {
        $g = new KnownFlight(3);
        $run = [];
        $lag = $rate = $goal = 0.0;
        for ($i = 0; $i < 4000; ++$i) {
            if (0 === $i % 60) {
                $goal = 0.2 * (2 * $g->next() - 1);
            }
            $lag += (1 - exp(-0.001 / 0.035)) * ($goal - $lag);
            $rate += 0.001 * 20_000 * $lag;
            $run[] = [$i / 1000, $rate, [0.4 + $goal / 2, 0.4 + $goal / 2, 0.4 - $goal / 2, 0.4 - $goal / 2]];
        }
        $found = RateAuthority::of([$run]);
        self::assertNotNull($found);
        self::assertEqualsWithDelta(20_000 * 0.4 ** 1.6, $found->perS2, 0.05 * 20_000 * 0.4 ** 1.6);
        self::assertGreaterThan(0.95, $found->explained);
        self::assertTrue($found->allows(1.0));
        self::assertFalse($found->allows(self::DPS), 'in rad/s it would be no craft');
        self::assertNull(RateAuthority::of([\array_slice($run, 0, 40)]), 'too short');
        $none = array_map(static fn (array $m): array => [$m[0], 5 * $g->gauss(), $m[2]], $run);
        self::assertNull(RateAuthority::of([$none]), 'a rate of its own');
    }

    #[DataProvider('hard')]
    public function testOutputsTellAUnitOrItIsAsked(TruthCraft $craft, string $name, string $unit): void
    {
        $plan = self::plan(self::foreign($craft, $name, $unit));
        $guess = $plan->units['rate_measured_roll_dps'];
        self::assertTrue([] !== $plan->unsure() || $guess->unit === $unit, 'taken wrongly in silence');
        if ('' === $name && 'rad/s' === $unit) {
            self::assertSame([], $plan->unsure(), 'nothing else turns like a craft');
        }
    }

    /** @return iterable<string, array{TruthCraft, string, string}> */
    public static function hard(): iterable
    {
        foreach (TruthCraft::five() as $craft) {
            foreach (['', 'deg/s', 'rad/s'] as $name) {
                foreach (array_keys(self::WRITTEN) as $unit) {
                    yield "$craft->name, named “{$name}”, in $unit" => [$craft, $name, $unit];
                }
            }
        }
    }

    /** A stick is in µs or in shares, never in deg/s: what is meant is its setpoint, and that is asked. */
    public function testAStickInDegreesPerSecondIsASetpoint(): void
    {
        $lines = ['time_s,stick roll (deg/s),rc pitch [dps],stick yaw,gyro roll (deg/s)'];
        for ($i = 0; $i < 2000; ++$i) {
            $set = 300 * sin($i / 130) + 90 * sin($i / 31);
            $lines[] = \sprintf('%.3F,%.1F,%.1F,%.1F,%.1F', $i / 1000, $set, $set / 2, 1500 + $set / 3, $set);
        }
        $plan = self::plan(implode("\n", $lines)."\n");
        $traces = array_map(static fn (ColumnGuess $g): ?string => $g->trace, $plan->guesses);
        self::assertSame(['time_s', 'setpoint_roll_dps', 'setpoint_pitch_dps', 'stick_yaw_us', 'rate_measured_roll_dps'], $traces);
        $asked = array_map(static fn (ColumnGuess $g): string => $g->name, $plan->unsure());
        self::assertSame(['stick roll (deg/s)', 'rc pitch [dps]'], $asked);
        self::assertSame(UnitSource::Setpoint, $plan->units['rate_measured_roll_dps']->why, 'it follows it');
    }

    /** Whatever the name says, and however calmly it was flown: what is wrong is asked. */
    #[DataProvider('named')]
    public function testANameThatLiesIsNeverBelievedInSilence(TruthCraft $craft, TruthMoves $moves, string $unit, bool $withSet): void
    {
        $plan = self::plan(self::foreign($craft, 'deg/s', $unit, $moves, $withSet));
        $guess = $plan->units['rate_measured_roll_dps'];
        self::assertTrue([] !== $plan->unsure() || $guess->unit === $unit, "taken as $guess->unit in silence");
        if (!$withSet && UnitSource::NameAlone === $guess->why) {
            self::assertCount(3, $plan->unsure(), 'what only a name says is asked');
        }
        if ($withSet && 'deg/s' === $unit && TruthMoves::Cruise === $moves) {
            self::assertSame([], $plan->unsure(), 'two names that agree are believed');
        }
    }

    /** @return iterable<string, array{TruthCraft, TruthMoves, string, bool}> */
    public static function named(): iterable
    {
        foreach ([TruthCraft::light(), TruthCraft::heavy(), TruthCraft::slow()] as $craft) {
            foreach ([TruthMoves::Cruise, TruthMoves::Reversals] as $moves) {
                foreach (array_keys(self::WRITTEN) as $unit) {
                    foreach ([false, true] as $with) {
                        $how = $with ? 'with' : 'without';
                        yield "$craft->name, $moves->value, $unit, $how setpoints" => [$craft, $moves, $unit, $with];
                    }
                }
            }
        }
    }

    private static function foreign(
        TruthCraft $craft,
        string $name,
        string $unit,
        TruthMoves $moves = TruthMoves::Hard,
        bool $withSet = false,
    ): string {
        $log = self::$flights[$craft->name.$moves->value] ??= (new TruthFlight($craft, 3))->fly($moves, 12);
        $set = $withSet ? array_map(static fn (string $a): array => $log->trace("setpoint_{$a}_dps"), ['roll', 'pitch', 'yaw']) : [];
        $said = '' === $name ? '' : " ($name)";
        $outputs = array_map(static fn (string $p): array => $log->trace("output_{$p}_pct"), array_keys($craft->motors));
        $rates = array_map(static fn (string $a): array => $log->trace("rate_filtered_{$a}_dps"), ['roll', 'pitch', 'yaw']);
        [$by] = self::WRITTEN[$unit];
        $format = \in_array($unit, ['deg/s', 'rad/s'], true) ? '%.4F' : '%.0F';
        $text = "time_s,gyro[0]$said,gyro[1]$said,gyro[2]$said";
        foreach (array_keys($set) as $i) {
            $text .= ",setpoint[$i] (deg/s)";
        }
        foreach (array_keys($outputs) as $i) {
            $text .= ",motor[$i]";
        }
        foreach (array_keys($rates[0]) as $i) {
            $text .= \sprintf("\n%.3F", $i / 1000);
            foreach ($rates as $rate) {
                $text .= ','.\sprintf($format, $rate[$i] * $by);
            }
            foreach ($set as $asked) {
                $text .= \sprintf(',%d', $asked[$i]);
            }
            foreach ($outputs as $output) {
                $text .= \sprintf(',%.1F', $output[$i]);
            }
        }

        return "$text\n";
    }

    private static function plan(string $text): LogPlan
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'alone');
        file_put_contents($path, $text);
        try {
            return LogPlan::of($path);
        } finally {
            unlink($path);
        }
    }
}
