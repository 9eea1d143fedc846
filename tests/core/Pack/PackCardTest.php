<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Pack;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Pack\Discharge;
use Ortholex\Core\Pack\PackCard;
use Ortholex\Core\Pack\PackFit;
use PHPUnit\Framework\TestCase;

/** The card of a pack, and its discharge beyond what was flown. */
final class PackCardTest extends TestCase
{
    public function testACardComesBackFromWhatWasKept(): void
    {
        $card = PackCard::fresh(3, 'Sedge 1', 6, 1.3)->flownIn(7)->flownIn(9)->used(false);
        self::assertEquals($card, PackCard::fromArray($card->toArray()));
        self::assertSame([7, 9], $card->logs);
        $strange = PackCard::fromArray(['cells' => 'many', 'ah' => [], 'logs' => ['x', 4, null], 'name' => 12]);
        self::assertSame([1, '', [4], false], [$strange->cells, $strange->name, $strange->logs, $strange->inUse]);
        self::assertGreaterThan(0.0, $strange->ah);
    }

    /** Risen by half and beyond its intervals it ages; risen by half within them nobody knows. */
    public function testAPackAgesWhenItsResistanceRoseByHalfForSure(): void
    {
        $new = PackFit::of($this->log(0.003, 0.004), 6);
        $old = PackFit::of($this->log(0.0048, 0.004), 6);
        $hardly = PackFit::of($this->log(0.0036, 0.004), 6);
        self::assertTrue(PackCard::ages([$new, $hardly, $old]));
        self::assertFalse(PackCard::ages([$new, $hardly]));
        self::assertFalse(PackCard::ages([$new]));
        self::assertNull(PackCard::rise([$new]));
        self::assertEqualsWithDelta(1.6, PackCard::rise([$new, $old]), 0.05);
        $unsure = PackFit::of($this->log(0.0048, 0.6), 6);
        self::assertGreaterThan($new->high - $new->low, $unsure->high - $unsure->low);
        if ($unsure->low <= $new->high) {
            self::assertFalse(PackCard::ages([$new, $unsure]));
        }
    }

    /** Beyond what was flown a typical cell goes on from where the logs end, and never rises. */
    public function testTheRestCurveGoesOnDownward(): void
    {
        $pack = Discharge::of([PackFit::of($this->log(0.003, 0.004), 6)], [0.0], 1.3);
        self::assertNotNull($pack);
        self::assertLessThan(Discharge::COVERS, $pack->covers);
        $before = \INF;
        for ($ah = 0.0; $ah <= 1.3; $ah += 0.01) {
            $volts = $pack->restAt($ah);
            self::assertLessThanOrEqual($before + 0.003, $volts, "$ah Ah");
            $before = $volts;
        }
        self::assertLessThan(3.4, $pack->restAt(1.3));
        self::assertEqualsWithDelta(1.3, $pack->usedAt(2.5, 20.0), 1e-6, 'a level it never comes down to');
        self::assertEqualsWithDelta(0.0, $pack->usedAt(4.5, 20.0), 1e-6, 'a level it begins below');
        foreach ([3.9, 3.7, 3.5] as $level) {
            $ah = $pack->usedAt($level, 20.0);
            self::assertEqualsWithDelta($level, $pack->restAt($ah) - $pack->ohm * 20.0, 0.002);
        }
        self::assertNull(Discharge::of([], [], 1.3));
    }

    private function log(float $ohm, float $noise): FlightLog
    {
        $text = "time_s,battery_v,current_a\n";
        $charge = 0.0;
        for ($i = 0; $i < 4000; ++$i) {
            $a = 20 + 9 * sin($i / 41) + (0 === intdiv($i, 170) % 2 ? 8 : 0);
            $charge += $a / 50 / 3600;
            $off = $noise * sin($i * $i * 0.37);
            $text .= \sprintf("%.2f,%.4f,%.3f\n", $i / 50, 6 * (4.15 - 0.6 * $charge - $ohm * $a) + $off, $a);
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'pack');
        file_put_contents($path, $text);
        $log = LogReader::readFile($path);
        unlink($path);

        return $log;
    }
}
