<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Noise;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Noise\MapDifference;
use Ortholex\Core\Noise\NoiseComparison;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Noise\NotchKind;
use Ortholex\Core\Noise\NotchTrack;
use Ortholex\Core\Noise\OrderLine;
use Ortholex\Core\Noise\RotorSpeed;
use Ortholex\Core\Report\Charts;
use Ortholex\Core\Report\Finding\Certainty;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Finding\FindingCode;
use Ortholex\Core\Report\Finding\FindingKind;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\MapChart;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Noise against rotor speed, the notches over it, and maps against each other; truth known as it was made here. */
final class NoiseAgainstTest extends TestCase
{
    /** @return iterable<string, array{int, int, int, string}> sample rate, magnets set, true magnets, head of the log */
    public static function magnets(): iterable
    {
        foreach ([1000, 2000, 4000] as $rate) {
            foreach ([[14, 12], [12, 14], [14, 16], [14, 18]] as [$set, $true]) {
                yield "$rate Hz, set $set, true $true" => [$rate, $set, $true, "# motors.rotor_magnets: $set\n"];
            }
        }
        yield 'without settings in the log, 14 for 12' => [2000, 14, 12, ''];
        yield 'without settings in the log, 12 for 14' => [2000, 12, 14, ''];
    }

    #[DataProvider('magnets')]
    #[Group('slow')]
    public function testAWrongMagnetCountShowsInTheOrderOfTheClimbingLine(int $rate, int $set, int $true, string $head): void
    {
        $log = self::shaking($rate, $true / $set, $head);
        $analysis = FlightAnalysis::of($log, false);
        $orders = array_values(
            array_filter($analysis->orders, static fn (OrderLine $o): bool => Axis::Roll === $o->axis && abs($o->order - 1) < 0.5),
        );
        self::assertNotEmpty($orders);
        self::assertEqualsWithDelta($set / $true, $orders[0]->order, (0.01 * $set) / $true);
        $found = array_values(
            array_filter(Report::of($log, $analysis)->findings, static fn (Finding $f): bool => FindingKind::Magnets === $f->kind),
        );
        self::assertCount(1, $found);
        self::assertSame(FindingCode::WrongMagnets, $found[0]->what->code);
        self::assertSame(['set' => $set, 'is' => $true], array_intersect_key($found[0]->what->figures, ['set' => 0, 'is' => 0]));
        self::assertSame('motors.rotor_magnets', $found[0]->setting);
        self::assertSame('' === $head ? Certainty::Fair : Certainty::Firm, $found[0]->sure->code);
    }

    #[DataProvider('rates')]
    #[Group('slow')]
    public function testARightCountIsNotAccused(int $rate): void
    {
        $log = self::shaking($rate, 1.0, "# motors.rotor_magnets: 14\n");
        $analysis = FlightAnalysis::of($log, false);
        self::assertSame(
            [],
            array_filter(Report::of($log, $analysis)->findings, static fn (Finding $f): bool => FindingKind::Magnets === $f->kind),
        );
        // The second harmonic stands at its order, too.
        $orders = array_map(
            static fn (OrderLine $o): float => $o->order,
            array_values(array_filter($analysis->orders, static fn (OrderLine $o): bool => Axis::Pitch === $o->axis)),
        );
        sort($orders);
        self::assertEqualsWithDelta([1.0, 2.0], $orders, 0.02);
    }

    /** @return iterable<string, array{int}> */
    public static function rates(): iterable
    {
        yield '1 kHz' => [1000];
        yield '2 kHz' => [2000];
        yield '8 kHz' => [8000];
    }

    public function testOneMapAgainstTwoLevelsIsEachOfThemAlone(): void
    {
        $g = new KnownFlight(3);
        $x = array_map(static fn (): float => $g->gauss(), range(1, 20000));
        $up = array_map(static fn (int $i): float => $i / 200, range(0, 19999));
        $down = array_reverse($up);
        $maps = NoiseMap::against([$x], ['up' => NoiseMap::bins([$up], 1000), 'down' => NoiseMap::bins([$down], 1000)], 1000);
        self::assertEquals(NoiseMap::of([$x], [$up], 1000), $maps['up']);
        self::assertEquals(NoiseMap::of([$x], [$down], 1000), $maps['down']);
        self::assertSame([], NoiseMap::against([$x], [], 1000));
    }

    /** Windows begin and end between samples of a level that was averaged before, so that it says what all of its samples say. */
    #[DataProvider('rates')]
    public function testALevelAveragedBeforeTellsTheSameWindows(int $rate): void
    {
        $g = new KnownFlight(5);
        $runs = [];
        foreach ([3 * $rate, (int) (0.2 * $rate), 2 * $rate + 37] as $n) {
            $runs[] = array_map(static fn (int $i): float => 50 + 45 * sin($i / $rate) + 0.3 * $g->gauss(), range(0, $n - 1));
        }
        $factor = NoiseMap::levelFactor($rate);
        self::assertGreaterThanOrEqual(100, $rate / $factor);
        self::assertLessThan(200, $rate / $factor);
        $averaged = array_map(static fn (array $run): array => Statistics::decimated($run, $factor), $runs);
        $bins = NoiseMap::bins($averaged, $rate, $factor);
        self::assertSame(NoiseMap::bins($runs, $rate), $bins);
        self::assertGreaterThan(10, \count(array_unique($bins[0])));
        self::assertSame([], $bins[1]);
    }

    public function testRotorSpeedIsTheMeanOfTheMotorsOnARoundScale(): void
    {
        $log = KnownFlight::of(
            [
                'output_front_pct' => array_fill(0, 100, 50.0),
                'output_rear_pct' => array_fill(0, 100, 50.0),
                'rpm_front' => array_fill(0, 100, 9000.0),
                'rpm_rear' => array_fill(0, 100, 12000.0),
            ],
            100,
        );
        $speed = RotorSpeed::of(RotorSpeed::logged($log, 1));
        self::assertNotNull($speed);
        self::assertSame(12000.0, $speed->fullRpm);
        self::assertEqualsWithDelta(87.5, $speed->levelPct[0][50], 1e-4);
        self::assertNull(RotorSpeed::of([]));
        self::assertNull(RotorSpeed::of([[[0.0, 0.0, 0.0]]]));
    }

    public function testNotchesSitWhereSettingsAndSpeedsPutThem(): void
    {
        $n = 4000;
        $throttle = array_map(static fn (int $i): float => $i < 2000 ? 21.0 : 61.0, range(0, $n - 1));
        $one = array_map(static fn (float $t): float => $t < 50 ? 3000.0 : 9000.0, $throttle);
        $two = array_map(static fn (float $t): float => $t < 50 ? 3600.0 : 9600.0, $throttle);
        $columns = [
            'throttle_pct' => $throttle,
            'output_front_pct' => $throttle,
            'output_rear_pct' => $throttle,
            'rpm_front' => $one,
            'rpm_rear' => $two,
            'tracking_notch_1_hz' => array_map(static fn (float $t): float => $t < 50 ? 210.0 : 190.0, $throttle),
        ];
        $log = self::headed("notch.motor.orders: '1,3'\nnotch.motor.floor_hz: 80.0\n", $columns, 1000);
        $against = static fn (FlightLog $log): array => NotchTrack::against(
            $log,
            ['throttle' => array_map(static fn (array $run): array => Statistics::decimated($run, 8), [$throttle])],
            RotorSpeed::logged($log, 8),
            8,
        )['throttle'];
        $tracks = $against($log);
        self::assertSame(
            [NotchKind::Motor, NotchKind::Motor, NotchKind::Tracking],
            array_map(static fn (NotchTrack $t): NotchKind => $t->kind, $tracks),
        );
        self::assertSame([1, 3, 1], array_map(static fn (NotchTrack $t): int => $t->number, $tracks));
        self::assertEqualsWithDelta([80.0, 80.0, 80.0], $tracks[0]->hz[10], 1e-3, '50 and 60 Hz are under the floor');
        self::assertEqualsWithDelta([150.0, 155.0, 160.0], $tracks[0]->hz[30], 1e-3, 'between the motors');
        self::assertEqualsWithDelta([450.0, 465.0, 480.0], $tracks[1]->hz[30], 1e-3);
        self::assertEqualsWithDelta([210.0, 210.0, 210.0], $tracks[2]->hz[10], 1e-3);
        // Settings unknown: the speed itself is shown, and called that.
        $bare = $against(KnownFlight::of($columns, 1000));
        self::assertSame(NotchKind::Rotor, $bare[0]->kind);
        self::assertEqualsWithDelta(55.0, $bare[0]->hz[10][1], 1e-3);
        self::assertSame([], $against(KnownFlight::of(['throttle_pct' => $throttle], 1000)));
    }

    public function testMapsAreComparedBinByBinOnTheCoarserGrid(): void
    {
        $flat = static fn (float $db, int $n): array => array_fill(0, $n, $db);
        // Quieter by 6 dB above 200 Hz in bins 10 to 20; the second at half the resolution.
        $a = $b = [];
        for ($bin = 10; $bin <= 20; ++$bin) {
            $a[$bin] = [...$flat(-20.0, 100), ...$flat(-26.0, 401)];
            $b[$bin] = $flat(-20.0, 251);
        }
        $b[40] = $flat(0.0, 251);
        $less = MapDifference::of($a, 2.0, $b, 4.0);
        self::assertSame(range(10, 20), array_keys($less->db), 'only what both have');
        self::assertSame(4.0, $less->stepHz);
        self::assertEqualsWithDelta(0.0, $less->db[15][20], 1e-9);
        self::assertEqualsWithDelta(-6.0, $less->db[15][80], 1e-9);
        $bands = NoiseComparison::ofMaps($less, 100, 100);
        self::assertNotNull($bands);
        self::assertEqualsWithDelta(-6.0, $bands->most()['db'] ?? 0, 0.1);
        self::assertSame(450.0, $bands->most()['from_hz'] ?? 0);
        self::assertLessThan(0, $bands->mean());
        // Turned about, the sign turns; flown otherwise, the sticks' band is left out.
        self::assertEqualsWithDelta(6.0, MapDifference::of($b, 4.0, $a, 2.0)->db[15][80], 1e-9);
        self::assertSame(8.0, $bands->bands[0]['from_hz']);
        self::assertSame(30.0, NoiseComparison::ofMaps($less, 200, 20)->bands[0]['from_hz'] ?? 0);
        // Too little in common.
        self::assertNull(NoiseComparison::ofMaps(MapDifference::of($a, 2.0, [40 => $flat(0.0, 251)], 4.0), 100, 100));
        self::assertSame([], MapDifference::of($a, 0.0, $b, 0.0)->db);
        // Another full speed: half of it is the same speed at twice the level.
        self::assertSame([5], array_keys(MapDifference::of([5 => $flat(-20.0, 251)], 4.0, $b, 4.0, 2.0)->db));
    }

    public function testAKeptMapComesBackAsItWas(): void
    {
        $log = self::shaking(1000, 1.0, '');
        $analysis = FlightAnalysis::of($log, false);
        $kept = json_decode((string) json_encode(Charts::of($analysis)->toArray()), true);
        self::assertIsArray($kept);
        $map = Charts::fromArray(Stored::of($kept))->maps['roll'];
        $rows = $map->rows();
        self::assertSame(array_keys($analysis->maps['roll']->density), array_keys($rows));
        foreach ($analysis->maps['roll']->density as $bin => $row) {
            foreach ($row as $k => $v) {
                $db = max(-45.0, min(30.0, 10 * log10(max(1e-12, $v))));
                self::assertEqualsWithDelta($db, $rows[$bin][$k], 0.16);
            }
        }
        $less = MapChart::difference($map->less($map), 18.0);
        self::assertIsString($less['cells']);
        self::assertSame(
            [128],
            array_values(array_unique(array_map('ord', str_split((string) base64_decode($less['cells'], true))))),
            'a map less itself is nothing everywhere',
        );
    }

    /** Motors that shake once and twice a turn while the throttle climbs; the logged speed is wrong by a factor. */
    private static function shaking(int $rate, float $factor, string $head): FlightLog
    {
        $g = new KnownFlight($rate);
        $columns = [
            'throttle_pct' => [],
            'rate_measured_roll_dps' => [],
            'rate_measured_pitch_dps' => [],
            'rate_measured_yaw_dps' => [],
            'output_front_left_pct' => [],
            'rpm_front_left' => [],
        ];
        $phase = 0.0;
        for ($i = 0, $n = 40 * $rate; $i < $n; ++$i) {
            $level = 20 + 60 * abs(fmod($i / $rate / 20, 2) - 1);
            // Speed goes as the root of thrust, so against throttle the line is bent; against speed it is straight.
            $hz = 18 * sqrt($level);
            $phase += (2 * \M_PI * $hz) / $rate;
            $columns['throttle_pct'][] = $columns['output_front_left_pct'][] = $level;
            foreach (['roll' => 2.0, 'pitch' => 1.6, 'yaw' => 0.7] as $axis => $size) {
                $columns["rate_measured_{$axis}_dps"][] = $size * sin($phase) + 0.5 * $size * sin(2 * $phase) + 0.6 * $g->gauss();
            }
            $columns['rpm_front_left'][] = 60 * $hz * $factor;
        }

        return self::headed($head, $columns, $rate);
    }

    /** @param array<string, list<float>> $columns */
    private static function headed(string $head, array $columns, float $rate): FlightLog
    {
        $lines = [implode(',', ['time_s', ...array_keys($columns)])];
        $values = array_values($columns);
        for ($i = 0, $n = \count($values[0]); $i < $n; ++$i) {
            $lines[] =
                \sprintf('%.6F,', $i / $rate).implode(',', array_map(static fn (array $c): string => \sprintf('%.4F', $c[$i]), $values));
        }

        return KnownFlight::read(
            ('' === $head ? '' : preg_replace('~^(?:# )?~m', '# ', rtrim($head))."\n").implode("\n", $lines)."\n",
        );
    }
}
