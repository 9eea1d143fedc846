<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Position;

use Ortholex\Core\Position\NmeaScan;
use PHPUnit\Framework\TestCase;

final class NmeaScanTest extends TestCase
{
    /** A sentence that texts on NMEA 0183 print as their example, with its checksum. */
    private const FIX = '$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47';

    public function testTheChecksumIsTheExclusiveOrOfAllBetween(): void
    {
        self::assertSame('47', NmeaScan::checksum(substr(self::FIX, 1, -3)));
        self::assertSame('00', NmeaScan::checksum('AA'));
        self::assertSame('0A', NmeaScan::checksum("\x0A"), 'two digits always');
    }

    public function testWholeSentencesAreCountedAndBrokenOnesApart(): void
    {
        $bytes = self::FIX."\r\n".str_replace('4807', '4808', self::FIX)."\r\n".self::FIX."\r\n";
        $scan = NmeaScan::of($bytes);
        self::assertSame([2, 1, \strlen($bytes)], [$scan->whole, $scan->broken, $scan->bytes]);
        $scan = NmeaScan::of(substr(self::FIX, 9)."\r\n".self::FIX."\r\n".substr(self::FIX, 0, 30));
        self::assertSame([1, 0], [$scan->whole, $scan->broken], 'cut off at both ends, as it is when one listens in');
    }

    /** Every single flipped bit between $ and * is found: an exclusive or misses none. */
    public function testNoFlippedBitPasses(): void
    {
        $end = strpos(self::FIX, '*');
        self::assertIsInt($end);
        for ($at = 1; $at < $end; ++$at) {
            for ($bit = 0; $bit < 8; ++$bit) {
                $flipped = self::FIX;
                $flipped[$at] = \chr(\ord($flipped[$at]) ^ (1 << $bit));
                self::assertSame(0, NmeaScan::of($flipped)->whole, "bit $bit of byte $at");
            }
        }
    }

    public function testRubbishIsNoSentence(): void
    {
        mt_srand(7);
        $rubbish = '';
        for ($i = 0; $i < 20_000; ++$i) {
            $rubbish .= \chr(mt_rand(0, 255));
        }
        self::assertSame(0, NmeaScan::of($rubbish)->whole);
        self::assertSame(0, NmeaScan::of(str_repeat('$', 5000).str_repeat('*', 5000))->whole);
    }
}
