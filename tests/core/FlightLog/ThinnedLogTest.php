<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\Clock\Pieces;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\OutputTop;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\Incident\Motion\FlightRun;
use Ortholex\Core\LogCheck\Adequacy;
use Ortholex\Core\LogCheck\AdequacyCode;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\TestCase;

/** Of a log too long to be looked at whole, stretches stand for it; and nothing of it is out of place. */
final class ThinnedLogTest extends TestCase
{
    public function testStretchesAreOfOneLengthEvenlySpreadAndWithinTheLog(): void
    {
        $pieces = Pieces::of([new Segment(0, 360_000, 5.0)], 100.0, 90_000);
        self::assertCount(30, $pieces);
        self::assertSame(0, $pieces[0]->first);
        self::assertSame(360_000, $pieces[29]->first + $pieces[29]->count);
        for ($k = 0; $k < 30; ++$k) {
            self::assertSame(3000, $pieces[$k]->count);
            self::assertEqualsWithDelta($k * 357_000 / 29, $pieces[$k]->first, 1);
            self::assertEqualsWithDelta(5.0 + $pieces[$k]->first / 100.0, $pieces[$k]->startS, 1e-9);
        }
    }

    public function testNoStretchReachesAcrossAGap(): void
    {
        // Flights of 3 to 200 s with pauses between them.
        $segments = [];
        $first = 0;
        $at = 0.0;
        for ($i = 0; $i < 60; ++$i) {
            $count = 300 + 7919 * $i % 19_700;
            $segments[] = new Segment($first, $count, $at);
            $first += $count;
            $at += $count / 100.0 + 30.0;
        }
        $pieces = Pieces::of($segments, 100.0, 60_000);
        self::assertGreaterThan(10, \count($pieces));
        self::assertLessThanOrEqual(60_000, array_sum(array_column($pieces, 'count')));
        $last = -1;
        foreach ($pieces as $piece) {
            $in = array_filter($segments, static fn (Segment $s): bool => $piece->first >= $s->first
                && $piece->first + $piece->count <= $s->first + $s->count
                && abs($piece->startS - $s->startS - ($piece->first - $s->first) / 100.0) < 1e-9);
            self::assertCount(1, $in);
            self::assertGreaterThan($last, $piece->first);
            $last = $piece->first + $piece->count - 1;
        }
    }

    public function testWhatIsShorterThanAStretchIsTakenWholeAndOnce(): void
    {
        $segments = array_map(static fn (int $i): Segment => new Segment(200 * $i, 200, 5.0 * $i), range(0, 999));
        $pieces = Pieces::of($segments, 100.0, 60_000);
        self::assertCount(20, $pieces);
        foreach ($pieces as $piece) {
            self::assertContainsEquals($piece, $segments);
        }
        $two = Pieces::of([new Segment(0, 500, 0.0), new Segment(500, 90_000, 9.0)], 100.0, 60_000);
        self::assertCount(\count($two), array_unique(array_column($two, 'first')));
        self::assertEquals(new Segment(0, 500, 0.0), $two[0]);
    }

    public function testASampleKeepsItsTime(): void
    {
        $log = self::log(400, 50);
        self::assertSame($log, $log->thinned(20_000), 'short enough');
        $some = $log->thinned(6000);
        self::assertSame(6000, $some->clock->samples);
        self::assertCount(4, $some->clock->segments);
        self::assertSame($log->names(), $some->names());
        self::assertCount(6000, $some->trace('setpoint_roll_dps'));
        foreach ($some->runs('setpoint_roll_dps') as $s => $run) {
            $segment = $some->clock->segments[$s];
            self::assertCount($segment->count, $run);
            foreach ([0, 700, 1499] as $i) {
                $t = $segment->startS + $i / $some->clock->rateHz;
                self::assertEqualsWithDelta(self::setpoint($t), $run[$i], 0.06, "at $t s");
            }
        }
    }

    public function testItIsSaid(): void
    {
        $log = self::log(400, 50);
        $whole = array_map(static fn ($f): string => (string) $f->code->value, Adequacy::of($log)->cannot);
        self::assertNotContains(AdequacyCode::Thinned->value, $whole);
        $facts = Adequacy::of($log, $log->thinned(6000))->cannot;
        $said = array_values(array_filter($facts, static fn ($f): bool => $f->is(AdequacyCode::Thinned)));
        self::assertCount(1, $said);
        self::assertSame(4, $said[0]->figures['stretches'] ?? null);
        self::assertEqualsWithDelta(30.0, $said[0]->figures['pct'] ?? null, 0.1);
    }

    public function testMotionIsLookedAtWholeInParts(): void
    {
        $log = self::log(1500, 50);
        $runs = FlightRun::allOf($log);
        self::assertCount(3, $runs);
        $steps = 0;
        foreach ($runs as $n => $run) {
            self::assertSame($n, $run->number);
            self::assertEqualsWithDelta($log->clock->segments[0]->startS + $steps * $run->stepS, $run->startS, 1e-6);
            $steps += $run->count();
        }
        self::assertSame($log->clock->samples, $steps);
        self::assertCount(1, FlightRun::allOf(self::log(500, 50)), 'short enough to be looked at in one go');
    }

    public function testTheTopOfTheOutputsIsOfTheWholeLog(): void
    {
        $log = self::log(400, 50);
        $top = OutputTop::ofLog($log);
        self::assertSame(OutputTop::of($log->runs('output_front_left_pct')), $top);
        self::assertEqualsWithDelta(95.0, $top, 0.01);
    }

    private static function setpoint(float $t): float
    {
        return 200 * sin($t / 7);
    }

    private static function log(int $seconds, int $hz): FlightLog
    {
        $rates = implode(',', array_map(static fn (string $a): string => "rate_filtered_{$a}_dps", ['roll', 'pitch', 'yaw']));
        $rows = ["time_s,throttle_pct,setpoint_roll_dps,$rates,output_front_left_pct"];
        for ($i = 0, $n = $seconds * $hz; $i < $n; ++$i) {
            $t = $i / $hz;
            $set = self::setpoint($t);
            $rows[] = \sprintf('%.3F,%.1F,%.1F,%.1F,0,0,%.1F', $t, 40 + 30 * sin($t), $set, $set, min(95, 70 + 40 * sin($t)));
        }

        return KnownFlight::read(implode("\n", $rows)."\n");
    }
}
