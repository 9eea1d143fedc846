<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Radio;

use Ortholex\Core\Radio\Protocol\Line;
use Ortholex\Core\Radio\Protocol\Parity;
use Ortholex\Core\Radio\Wire\Edges;
use Ortholex\Core\Radio\Wire\FrameTiming;
use Ortholex\Core\Radio\Wire\PulseTrain;
use Ortholex\Core\Radio\Wire\SerialReader;
use Ortholex\Core\Radio\Wire\SerialWriter;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** One wire: bytes and pulses put on it and read from it again. */
final class WireTest extends TestCase
{
    /** @return iterable<string, array{Line}> */
    public static function lines(): iterable
    {
        foreach ([9600.0, 115_200.0, 420_000.0] as $baud) {
            foreach ([Parity::None, Parity::Even] as $parity) {
                foreach ([1, 2] as $stops) {
                    foreach ([false, true] as $inverted) {
                        $named = "$baud, {$parity->value}, $stops".($inverted ? ', inverted' : '');
                        yield $named => [new Line($baud, $parity, $stops, $inverted)];
                    }
                }
            }
        }
    }

    #[DataProvider('lines')]
    public function testEveryByteComesThroughAtOnceAndWithPauses(Line $line): void
    {
        $dice = new Lcg(12);
        $bytes = implode('', array_map(\chr(...), range(0, 255)));
        $writer = new SerialWriter($line);
        $writer->send($bytes, 100.0);
        for ($i = 0; $i < 256; ++$i) {
            $writer->send(\chr($i), 1e6 + $i * (20e6 / $line->baud) + 100 * abs($dice->next()));
        }
        $read = SerialReader::of($writer->edges(), $line);
        self::assertSame($bytes.$bytes, $read->bytes);
        self::assertSame(0, $read->broken);
        self::assertEqualsWithDelta($line->baud, $read->baud($line), 2e-3 * $line->baud);
        self::assertSame($bytes, $read->bursts($line)[0][0], 'what follows at once is one burst');
        self::assertEqualsWithDelta($line->seconds(256), ($read->endsUs[255] - $read->startsUs[0]) / 1e6, 1e-9);
    }

    public function testAClockThatIsTwoPercentOffIsForgivenAndOneThatIsTenIsNot(): void
    {
        $line = new Line(100_000, Parity::None, 1, false);
        $bytes = implode('', array_map(\chr(...), range(0, 255)));
        foreach ([0.98, 1.02] as $off) {
            $writer = new SerialWriter($line->at(100_000 * $off, false));
            $writer->send($bytes, 0.0);
            self::assertSame($bytes, SerialReader::of($writer->edges(), $line)->bytes);
        }
        foreach ([0.88, 1.14] as $off) {
            $writer = new SerialWriter($line->at(100_000 * $off, false));
            $writer->send($bytes, 0.0);
            self::assertNotSame($bytes, SerialReader::of($writer->edges(), $line)->bytes);
        }
    }

    public function testABrokenParityLosesItsByteAndNoOther(): void
    {
        $line = new Line(100_000, Parity::Even, 2, true);
        $writer = new SerialWriter($line);
        $writer->send("\x0F\x55\x55\x33", 0.0);
        $times = $writer->edges()->timesUs;
        $levels = $writer->edges()->levels;
        // A spark as long as a bit within the second byte: it begins at 120 µs, its bit 3 lies from 160 to 170.
        $broken = [];
        foreach ($times as $i => $time) {
            if ($time > 159.9 && $time < 170.1) {
                continue;
            }
            $broken[] = [$time, $levels[$i]];
        }
        $read = SerialReader::of(Edges::of(array_column($broken, 0), array_column($broken, 1), 0), $line);
        self::assertSame(1, $read->broken);
        self::assertStringStartsWith("\x0F", $read->bytes);
        self::assertStringEndsWith("\x33", $read->bytes);
    }

    public function testSparksAreLeftOut(): void
    {
        $edges = Edges::of([10.0, 10.4, 20.0, 30.0], [1, 0, 1, 0], 0);
        self::assertSame([20.0, 30.0], $edges->without(1.0)->timesUs);
        self::assertSame([10.0, 10.4, 20.0, 30.0], $edges->without(0.2)->timesUs);
        self::assertSame(2, Edges::of([1.0, 2.0, 3.0, 4.0], [1, 1, 0, 0], 0)->count(), 'what changes nothing is no change');
    }

    public function testAPulseTrainComesBackEitherWayUp(): void
    {
        $dice = new Lcg(44);
        foreach ([false, true] as $down) {
            $times = $levels = $sent = [];
            for ($k = 0; $k < 6; ++$k) {
                $channels = array_map(static fn (): float => (float) $dice->whole(900, 2100), range(1, 8));
                [$t, $l] = PulseTrain::send($channels, 5000 + 27_000.0 * $k, $down);
                array_push($times, ...$t);
                array_push($levels, ...$l);
                $sent[] = $channels;
            }
            $edges = Edges::of($times, $levels, $down ? 1 : 0);
            $train = PulseTrain::of($edges);
            self::assertTrue(PulseTrain::isLikely($edges));
            self::assertSame($down, $train->down);
            // The first has no pause before it, and the last none after it: neither is known to be whole.
            self::assertSame(\array_slice($sent, 1, 4), array_map(static fn (array $f): array => $f[1]->channelsUs, $train->frames));
        }
    }

    public function testADistanceThatNoChannelHasSpoilsItsFrame(): void
    {
        $times = $levels = [];
        foreach ([[1500, 1500, 1500], [1500, 3000, 1500], [1200, 1300, 1400], [1500, 1500, 1500]] as $k => $channels) {
            [$t, $l] = PulseTrain::send(array_map(floatval(...), [...$channels, 1111]), 20_000.0 * $k, false);
            array_push($times, ...$t);
            array_push($levels, ...$l);
        }
        $frames = PulseTrain::of(Edges::of($times, $levels, 0))->frames;
        self::assertSame([[1200.0, 1300.0, 1400.0, 1111.0]], array_map(static fn (array $f): array => $f[1]->channelsUs, $frames));
    }

    public function testIntervalAndLossAreToldFromWhenFramesCame(): void
    {
        $dice = new Lcg(5);
        foreach ([4000.0, 6667.0, 9000.0, 22_500.0] as $interval) {
            foreach ([0, 10, 40] as $lost) {
                $times = [];
                $gone = 0;
                for ($k = 0; $k < 400; ++$k) {
                    if ($k > 0 && $k < 399 && $dice->whole(0, 99) < $lost) {
                        ++$gone;
                        continue;
                    }
                    $times[] = $k * $interval + 40 * $dice->next();
                }
                $timing = FrameTiming::of($times);
                self::assertEqualsWithDelta($interval / 1000, $timing->medianMs, 0.02);
                self::assertSame($gone, $timing->missing, "$interval, $lost %");
                self::assertLessThan(0.06, $timing->spreadMs);
            }
        }
        self::assertNull(FrameTiming::of([5.0])->medianMs);
        self::assertSame(0, FrameTiming::of([0.0, 7000.0, 14_000.0, 9_000_000.0])->missing, 'a pause is no loss');
    }
}
