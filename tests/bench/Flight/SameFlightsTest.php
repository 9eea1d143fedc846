<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Flight;

use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Demo\Scenario;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Cards that gather logs fly as they did before the bench flew in the world. The figures were taken from the simulator of commit
 * b9149dc, in one loop, whose log of 40 s the present one gives byte for byte.
 */
final class SameFlightsTest extends TestCase
{
    private const TRACES = [
        'setpoint_roll_dps' => 0.5,
        'rate_measured_roll_dps' => 1.0,
        'rate_filtered_pitch_dps' => 1.0,
        'term_i_yaw' => 0.05,
        'output_front_left_pct' => 0.5,
        'rpm_rear_right' => 30.0,
        'battery_v' => 0.02,
    ];

    /** @return iterable<string, array{string, Card, list<array{int, list<float>}>}> */
    public static function flights(): iterable
    {
        yield 'mixed sticks' => ['curlew', Card::MixedSticks, [
            [4000, [-21.244, -15.061, 110.287, -2.144, 57.509, 6821, 24.93]],
            [8000, [162.908, 150.305, 106.382, 2.494, 45.615, 9115, 24.49]],
            [11000, [0, -2.805, -2.003, 0.014, 15.732, 5286, 25.03]],
        ]];
        yield 'a hexa climbs' => ['bittern', Card::HoverAndClimb, [
            [4000, [-3.143, 4.939, -8.482, 0.797, 42.388, 7597, 24.85]],
            [8000, [-2.839, 4.085, 13.063, 0.667, 51.568, 7550, 24.85]],
            [11000, [6.657, 23.049, 14.399, 0.019, 12.809, 5887, 24.92]],
        ]];
        yield 'flips' => ['curlew', Card::FlipSet, [
            [4000, [0, 8.232, -0.305, 0.001, 57.959, 17659, 24.49]],
            [8000, [0, 0.915, -0.635, 0.009, 46.869, 14570, 24.72]],
            [11000, [0, -3.659, -0.847, 0.001, 17.686, 5986, 25]],
        ]];
        yield 'cruise' => ['curlew', Card::Cruise, [
            [4000, [-14.85, -6.341, -15.509, 0.391, 40.155, 12380, 24.87]],
            [8000, [0.464, 1.829, 3.962, 1.064, 48.272, 15051, 24.67]],
            [11000, [-31.114, -37.378, -39.623, 1.272, 16.21, 5735, 24.99]],
        ]];
    }

    /** @param list<array{int, list<float>}> $then */
    #[DataProvider('flights')]
    public function testAFlightIsWhatItWas(string $craft, Card $card, array $then): void
    {
        $demo = Scenario::craft()[$craft];
        // Bittern had more D then.
        $gains = 'bittern' === $craft ? ['gain.roll.d' => 5.0, 'gain.pitch.d' => 5.0] : [];
        $set = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with($demo->settings)->with($gains);
        $simulator = new FlightSimulator($demo->physics);
        $path = (string) tempnam(sys_get_temp_dir(), 'fly');
        $stream = fopen($path, 'w');
        self::assertIsResource($stream);
        $flown = FlightCard::fly($card, 6, 150, $simulator->hoverThrottle(), 4);
        $simulator->fly($flown, $set, 6, 11, [], new CsvRecorder($stream), static fn (float $share): bool => true);
        fclose($stream);
        $log = LogReader::readFile($path);
        unlink($path);
        foreach ($then as [$row, $figures]) {
            foreach (array_keys(self::TRACES) as $i => $trace) {
                self::assertEqualsWithDelta($figures[$i], $log->trace($trace)[$row], self::TRACES[$trace], "$trace in row $row");
            }
        }
    }
}
