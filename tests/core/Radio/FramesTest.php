<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Radio;

use Ortholex\Core\Radio\Protocol\Bits;
use Ortholex\Core\Radio\Protocol\Crc8;
use Ortholex\Core\Radio\Protocol\Crsf;
use Ortholex\Core\Radio\Protocol\FrameScan;
use Ortholex\Core\Radio\Protocol\LinkStatistics;
use Ortholex\Core\Radio\Protocol\Protocol;
use Ortholex\Core\Radio\Protocol\RadioFrame;
use Ortholex\Core\Radio\Protocol\Sbus;
use Ortholex\Core\Radio\Protocol\Telemetry;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** Frames as receivers send them: every value goes through and comes back, and what is broken says nothing. */
final class FramesTest extends TestCase
{
    public function testEveryValueOfEveryChannelGoesThroughBothSerialProtocols(): void
    {
        for ($value = 0; $value <= Bits::MOST; ++$value) {
            for ($channel = 0; $channel < 16; ++$channel) {
                $values = array_fill(0, 16, ($value * 7 + 311) & Bits::MOST);
                $values[$channel] = $value;
                $packed = Bits::pack($values);
                if (Bits::BYTES !== \strlen($packed) || $values !== Bits::unpack($packed)) {
                    self::fail("value $value of channel $channel");
                }
            }
            self::assertSame($value, Sbus::value(Sbus::us($value)));
            self::assertSame($value, Crsf::value(Crsf::us($value)));
        }
    }

    public function testTheLeastBitGoesFirst(): void
    {
        // Written out by hand: channel 1 is 0x001, channel 2 is 0x7FF, so bit 0 and bits 11 to 21 are set.
        self::assertSame('01f83f', bin2hex(substr(Bits::pack([1, 0x7FF, ...array_fill(0, 14, 0)]), 0, 3)));
        self::assertSame(880.0, Sbus::us(0));
        self::assertSame(1500.0, Sbus::us(992));
        self::assertSame(1500.0, Crsf::us(992));
        self::assertSame(2159.375, Sbus::us(2047));
    }

    public function testSbusFlagsComeBack(): void
    {
        foreach ([[false, false], [true, false], [false, true], [true, true]] as [$lost, $failsafe]) {
            $frame = Sbus::decode(Sbus::encode(new RadioFrame(array_fill(0, 16, 1200.0), $lost, $failsafe)));
            self::assertNotNull($frame);
            self::assertSame([$lost, $failsafe], [$frame->lost, $frame->failsafe]);
            self::assertSame(array_fill(0, 16, 1200.0), $frame->channelsUs);
        }
    }

    /** The check as its definition has it, by long division of polynomials over two: 0xD5 is x⁸ + x⁷ + x⁶ + x⁴ + x² + 1. */
    public function testTheCheckIsTheRemainderOfTheDivision(): void
    {
        $dice = new Lcg(8);
        for ($n = 0; $n < 200; ++$n) {
            $bytes = '';
            $bits = [];
            for ($i = 0, $length = $dice->whole(1, 30); $i < $length; ++$i) {
                $byte = $dice->whole(0, 255);
                $bytes .= \chr($byte);
                for ($b = 7; $b >= 0; --$b) {
                    $bits[] = ($byte >> $b) & 1;
                }
            }
            $rest = [...$bits, 0, 0, 0, 0, 0, 0, 0, 0];
            $divisor = [1, 1, 1, 0, 1, 0, 1, 0, 1];
            for ($i = 0, $m = \count($bits); $i < $m; ++$i) {
                for ($k = 0; 1 === $rest[$i] && $k < 9; ++$k) {
                    // The leading one is cleared last, as it decides.
                    $rest[$i + 8 - $k] ^= $divisor[8 - $k];
                }
            }
            self::assertSame(bindec(implode('', \array_slice($rest, -8))), Crc8::of($bytes));
        }
    }

    public function testAnyFlippedBitOfATwoWayFrameIsRefused(): void
    {
        $dice = new Lcg(3);
        $tried = 0;
        for ($n = 0; $n < 20; ++$n) {
            $frame = Crsf::channels(array_map(static fn (): float => (float) $dice->whole(900, 2100), range(1, 16)));
            for ($bit = 0, $bits = 8 * \strlen($frame); $bit < $bits; ++$bit) {
                $broken = $frame;
                $broken[$bit >> 3] = \chr(\ord($broken[$bit >> 3]) ^ (1 << ($bit & 7)));
                // A flipped length may ask for bytes that come later: they come, and it is refused all the same.
                $scan = FrameScan::of($broken.str_repeat("\0", 64), Protocol::Crsf);
                self::assertSame([], $scan->frames, "bit $bit");
                ++$tried;
            }
        }
        self::assertSame(20 * 208, $tried);
    }

    public function testARefusedFrameHidesNoSoundOneBehindIt(): void
    {
        $sound = Crsf::channels(array_fill(0, 16, 1234.375));
        $broken = $sound;
        $broken[7] = \chr(\ord($broken[7]) ^ 1);
        $scan = FrameScan::of('rubbish'.$broken.$sound."\xC8\x05", Protocol::Crsf);
        self::assertCount(1, $scan->frames);
        self::assertSame(1, $scan->refused);
        self::assertSame(1234.375, $scan->frames[0][1]->channelsUs[0]);
        $sbus = Sbus::encode(new RadioFrame(array_fill(0, 16, 1500.0)));
        self::assertCount(2, FrameScan::of("\x0F\x01".$sbus.$sbus, Protocol::Sbus)->frames);
        self::assertCount(0, FrameScan::of(substr($sbus, 0, 24), Protocol::Sbus)->frames);
    }

    public function testRubbishHasNoChannels(): void
    {
        $dice = new Lcg(77);
        $rubbish = '';
        for ($i = 0; $i < 60_000; ++$i) {
            $rubbish .= \chr($dice->whole(0, 255));
        }
        self::assertSame([], FrameScan::of($rubbish, Protocol::Crsf)->frames);
    }

    public function testLinkStatisticsAndTelemetryComeBack(): void
    {
        $link = new LinkStatistics(-71.0, 98, -3, 100);
        $type = Crsf::frame(Crsf::LINK, '');
        self::assertNotSame('', $type);
        $scan = FrameScan::of(Crsf::link($link), Protocol::Crsf);
        self::assertEquals($link, $scan->link);
        $told = Telemetry::in(implode('', (new Telemetry([15.2, 8.4, 1234.0], [52.0813, -1.5, 12.0, 9], [10.0, -5.0, 175.0]))->frames()));
        self::assertSame([15.2, 8.4, 1234.0], $told->battery);
        self::assertEqualsWithDelta([52.0813, -1.5, 12.0, 9], $told->position, 1e-6);
        self::assertEqualsWithDelta([10.0, -5.0, 175.0], $told->attitude, 0.01);
        self::assertEquals(new Telemetry(), Telemetry::in('nothing of the kind'));
    }
}
