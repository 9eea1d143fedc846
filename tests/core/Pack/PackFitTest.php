<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Pack;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Pack\Discharge;
use Ortholex\Core\Pack\PackCode;
use Ortholex\Core\Pack\PackError;
use Ortholex\Core\Pack\PackFit;
use Ortholex\Core\Pack\SourceCheck;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** A pack made of a straight rest curve, a known resistance, currents that wander, and noise of its own. */
final class PackFitTest extends TestCase
{
    private const CELLS = 6;

    public function testResistanceComesBackWithinFivePercentAndItsIntervalCoversIt(): void
    {
        $covered = 0;
        $worst = 0.0;
        for ($seed = 1; $seed <= 100; ++$seed) {
            $ohm = 0.002 + 0.00004 * $seed;
            $fit = PackFit::of($this->log($seed, $ohm, 90.0), self::CELLS);
            $worst = max($worst, abs($fit->ohm / $ohm - 1));
            $covered += $fit->low <= $ohm && $ohm <= $fit->high ? 1 : 0;
        }
        self::assertLessThan(0.05, $worst);
        self::assertGreaterThanOrEqual(90, $covered);
    }

    public function testChargeAndRestCurveAreWhatTheyWereMadeOf(): void
    {
        $fit = PackFit::of($this->log(3, 0.004, 120.0), self::CELLS);
        self::assertEqualsWithDelta($this->charge(3, 120.0), $fit->chargeAh, 0.003);
        foreach ($fit->rest as [$ah, $volts]) {
            self::assertEqualsWithDelta(4.1 - 0.5 * $ah, $volts, 0.004, "after $ah Ah");
        }
        self::assertEqualsWithDelta(4.1 - 0.5 * 0.4, $fit->restAt(0.4), 0.006);
    }

    public function testWhatTellsNothingSaysWhatWould(): void
    {
        foreach (
            [
                [PackCode::TooShort, $this->log(1, 0.004, 9.0)],
                [PackCode::Steady, $this->log(1, 0.004, 60.0, wander: 0.0)],
                [
                    PackCode::NoTrace,
                    self::read(
                        "time_s,throttle_pct\n".implode(
                            '',
                            array_map(static fn (int $i): string => \sprintf("%.3f,30\n", $i / 100), range(0, 900)),
                        ),
                    ),
                ],
            ] as [$code, $log]
        ) {
            try {
                PackFit::of($log, self::CELLS);
                self::fail($code->value);
            } catch (PackError $e) {
                self::assertTrue($e->fact()->is($code), $code->value);
            }
        }
    }

    /** Minutes from half charge to the flight-end level, by hand: (q_end − q)/I. */
    public function testMinutesLeftAreChargeOverCurrent(): void
    {
        $fits = array_map(fn (int $seed): PackFit => PackFit::of($this->log($seed, 0.004, 150.0), self::CELLS), [1, 2, 3]);
        $pack = Discharge::of($fits, [0.0, 0.0, 0.0], 1.3);
        self::assertNotNull($pack);
        $amperes = $pack->amperes;
        sort($amperes);
        // Under load: 4.1 − 0.5·q − 0.004·I = 3.75.
        $end = (4.1 - 3.75 - 0.004 * $amperes[1]) / 0.5;
        [$median, $low, $high] = $pack->minutes(0.2, 3.75);
        self::assertEqualsWithDelta((60 * ($end - 0.2)) / $amperes[1], $median, 0.05);
        self::assertTrue($low <= $median && $median <= $high);
        // A level 0.05 V a cell lower comes 0.1 Ah later.
        self::assertEqualsWithDelta((3600 * 0.1) / $amperes[1], $pack->secondsBetween(3.75, 3.7), 2.0);
        self::assertEqualsWithDelta(-(3600 * 0.1) / $amperes[1], $pack->secondsBetween(3.7, 3.75), 2.0);
    }

    public function testAVoltageThatStandsStillIsNoPack(): void
    {
        $stuck = $this->log(1, 0.0, 30.0, sags: false);
        self::assertTrue(SourceCheck::of($stuck, self::CELLS)?->is(PackCode::Stuck));
        self::assertTrue(SourceCheck::of($this->log(1, 0.004, 30.0), 3)?->is(PackCode::WrongSource));
        self::assertNull(SourceCheck::of($this->log(1, 0.004, 30.0), self::CELLS));
    }

    private function charge(int $seed, float $seconds): float
    {
        return array_sum($this->amperes($seed, $seconds, 1.0)) / 50 / 3600;
    }

    /** @return list<float> at 50 Hz: slow wandering with bursts */
    private function amperes(int $seed, float $seconds, float $wander): array
    {
        $dice = new Lcg($seed);
        $slow = 0.0;
        $out = [];
        for ($i = 0, $n = (int) (50 * $seconds); $i < $n; ++$i) {
            $slow += 0.02 * (-$slow) + 1.2 * 2 * $dice->next();
            $out[] = max(1.0, 22.0 + $wander * ($slow + (0 === intdiv($i, 120) % 3 ? 14.0 : 0.0)));
        }

        return $out;
    }

    private function log(int $seed, float $ohm, float $seconds, float $wander = 1.0, bool $sags = true): FlightLog
    {
        $dice = new Lcg($seed + 1000);
        $text = "time_s,battery_v,current_a\n";
        $charge = $noise = 0.0;
        foreach ($this->amperes($seed, $seconds, $wander) as $i => $a) {
            $charge += $a / 50 / 3600;
            // The sensor's noise is not white: what it is off by stays for a moment.
            $noise = 0.9 * $noise + 0.01 * 2 * $dice->next();
            $volts = self::CELLS * (4.1 - 0.5 * $charge - $ohm * $a) + $noise;
            $text .= \sprintf("%.3f,%.3f,%.2f\n", $i / 50, $sags ? $volts : 24.0, $a);
        }

        return self::read($text);
    }

    private static function read(string $text): FlightLog
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'pack');
        file_put_contents($path, $text);
        $log = LogReader::readFile($path);
        unlink($path);

        return $log;
    }
}
