<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\LogCheck;

use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\LogCheck\Hover;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** Hover from flights that never hovered, when what thrust gives is known. */
final class HoverTest extends TestCase
{
    public function testHoverIsFoundFromThrustThatGrowsWithTheSquareOfTheOutput(): void
    {
        $dice = new Lcg(9);
        for ($n = 0; $n < 20; ++$n) {
            $hover = 0.01 * $dice->whole(1500, 6000);
            $idle = 0.1 * $dice->whole(0, 80);
            $found = Hover::of($this->log($hover, $idle, $hover - 8, $hover + 20, $dice));
            self::assertNotNull($found);
            self::assertEqualsWithDelta($hover, $found->throttlePct, 1.0);
            self::assertLessThan(3.0, $found->spreadPct);
        }
    }

    public function testWhatWasNeverNearHoverTellsNothing(): void
    {
        $dice = new Lcg(10);
        self::assertNull(Hover::of($this->log(30.0, 4.0, 50.0, 80.0, $dice)));
        self::assertNull(Hover::of($this->log(30.0, 4.0, 29.5, 30.5, $dice)), 'one throttle is no line');
    }

    private function log(float $hover, float $idle, float $low, float $high, Lcg $dice): FlightLog
    {
        $hz = 200;
        $throttle = $up = [];
        for ($i = 0, $n = 30 * $hz; $i < $n; ++$i) {
            $u = $low + ($high - $low) * (0.5 + 0.5 * sin($i / $hz));
            $throttle[] = $u;
            $up[] = -((($u + $idle) / ($hover + $idle)) ** 2) + 0.05 * $dice->normal();
        }
        $columns = [
            'throttle_pct' => Column::ofBytes(FlightLog::packFloats($throttle)),
            'accel_z_g' => Column::ofBytes(FlightLog::packFloats($up)),
        ];
        $clock = SampleClock::known($hz, [new Segment(0, \count($up), 0.0)], []);

        return new FlightLog($clock, $columns, '', new BadRows(0, []));
    }
}
