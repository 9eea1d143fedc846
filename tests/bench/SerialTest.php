<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\Wiring\SerialLine;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Position\NmeaScan;
use Ortholex\Core\Wiring\Heard;
use Ortholex\Core\Wiring\Hearing;
use Ortholex\Core\Wiring\PartRole;

final class SerialTest extends BenchCase
{
    public function testAtTheRightRateBytesArriveAndAtAnyOtherRubbish(): void
    {
        $sent = random_bytes(400);
        self::assertSame($sent, SerialLine::received($sent, 115200, 115200, false));
        self::assertSame($sent, SerialLine::received($sent, 115200, 116000, false), 'a percent is forgiven');
        foreach ([9600, 57600, 100000, 230400] as $rate) {
            $got = SerialLine::received($sent, 115200, $rate, false);
            self::assertNotSame('', $got);
            self::assertLessThan(40, similar_text(substr($sent, 0, 60), substr($got, 0, 60)), "$rate baud");
        }
        self::assertNotSame($sent, SerialLine::received($sent, 115200, 115200, true), 'turned about');
    }

    /** The sentence with its checksum 27 is one that texts on NMEA 0183 quote; by hand, the exclusive-or of its 39 bytes. */
    public function testSentencesAreCountedByTheirChecksum(): void
    {
        self::assertSame('27', NmeaScan::checksum('GPGLL,5057.970,N,00146.110,E,142451,A'));
        $scan = NmeaScan::of(
            "rubbish\$GPGLL,5057.970,N,00146.110,E,142451,A*27\r\n\$GPGLL,5057.970,N,00146.110,E,142451,A*31\r\n\$GPGGA,cut off",
        );
        self::assertSame([1, 1], [$scan->whole, $scan->broken]);
    }

    public function testFramesAreUnderstoodOnlyWhole(): void
    {
        $frame = Heard::frame('hello there');
        self::assertSame(Hearing::Understood, Heard::of("\x00\x5A".$frame.$frame, PartRole::Receiver)->verdict);
        $frame[4] = '!';
        self::assertSame(Hearing::Rubbish, Heard::of($frame, PartRole::Receiver)->verdict);
        self::assertSame(Hearing::Silent, Heard::of('', PartRole::Gps)->verdict);
    }

    public function testAPartIsHeardWithPowerGroundAndTheRightRateOnly(): void
    {
        $this->solderWires([['plumb-g2.v', '5V'], ['plumb-g2.gnd', 'GND-L2'], ['plumb-g2.tx', 'RX3'], ['plumb-g2.rx', 'TX3']]);
        $client = $this->plug();
        self::assertSame('', $client->listen('3', 38400, false), 'its rail is dead on USB alone');
        $this->world->move('pack', '1');
        self::assertGreaterThanOrEqual(3, NmeaScan::of($client->listen('3', 38400, false))->whole, 'at least one moment');
        self::assertSame(Hearing::Rubbish, Heard::of($client->listen('3', 57600, false), PartRole::Gps)->verdict);
        self::assertSame(Hearing::Rubbish, Heard::of($client->listen('3', 38400, true), PartRole::Gps)->verdict);
        self::assertSame('', $client->listen('1', 38400, false), 'nobody is there');
        $this->solderWires([['plumb-g2.v', '5V'], ['plumb-g2.tx', 'RX3']]);
        self::assertSame('', $client->listen('3', 38400, false), 'no ground');
        $this->solderWires([['plumb-g2.v', '5V'], ['plumb-g2.gnd', 'GND-L2'], ['plumb-g2.tx', 'TX3']]);
        self::assertSame('', $client->listen('3', 38400, false), 'crossed');
        $this->expectException(LinkError::class);
        $client->listen('9', 38400, false);
    }

    /** @param list<array{string, string}> $wires */
    private function solderWires(array $wires): void
    {
        $this->world->solder($wires, []);
    }
}
