<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Homing;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Homing\HoverAmperes;
use PHPUnit\Framework\TestCase;

/** The current at hover, from a log. */
final class HoverAmperesTest extends TestCase
{
    public function testOnlyWhatHoversCounts(): void
    {
        // Ten seconds of hover at 14 A, ten of climb at 30 A, ten of hard turning at 20 A.
        $hover = HoverAmperes::of(self::log(static fn (float $t): array => match (true) {
            $t < 10 => [14 + 0.2 * sin(9 * $t), -1.0, 0.0],
            $t < 20 => [30.0, -1.4, 0.0],
            default => [20.0, -1.0, 300.0],
        }));
        self::assertNotNull($hover);
        self::assertEqualsWithDelta(14.0, $hover->amperes, 0.1);
        self::assertSame(40, $hover->windows);
        self::assertLessThan(0.2, $hover->spread);
    }

    public function testALogThatNeverHoversTellsNothing(): void
    {
        self::assertNull(HoverAmperes::of(self::log(static fn (float $t): array => [20.0, -1.5, 0.0])));
        self::assertNull(HoverAmperes::of(self::log(static fn (float $t): array => [0.0, -1.0, 0.0])), 'on the ground, motors off');
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        file_put_contents($path, "time_s,accel_z_g\n0,-1\n0.01,-1\n0.02,-1\n");
        self::assertNull(HoverAmperes::of(LogReader::readFile($path)));
        unlink($path);
    }

    /** @param \Closure(float): array{float, float, float} $at current, felt, and turning asked for */
    private static function log(\Closure $at): FlightLog
    {
        $text = "time_s,current_a,accel_z_g,setpoint_roll_dps\n";
        for ($i = 0; $i < 3000; ++$i) {
            $text .= \sprintf("%.2f,%.3f,%.3f,%.1f\n", $i / 100, ...$at($i / 100));
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        file_put_contents($path, $text);
        $log = LogReader::readFile($path);
        unlink($path);

        return $log;
    }
}
