<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Position;

use Ortholex\Core\Position\LocalMetres;
use Ortholex\Core\Position\Nmea\Fix;
use Ortholex\Core\Position\Nmea\NmeaReader;
use Ortholex\Core\Position\Nmea\NmeaReading;
use Ortholex\Core\Position\Nmea\Satellite;
use Ortholex\Core\Position\Nmea\Sentence;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Sentences against truths written by hand, and streams that were spoilt in every way. */
final class NmeaReaderTest extends TestCase
{
    private const HOME = [54.9, -3.4];

    public function testAMomentOfAllSentences(): void
    {
        $reading = self::read(
            'GNRMC,092725.00,A,4717.11399,N,00833.91590,E,0.004,77.52,091202,,,A',
            'GNVTG,77.52,T,,M,0.004,N,0.008,K,A',
            'GNGGA,092725.00,4717.11399,N,00833.91590,E,1,08,1.01,499.6,M,48.0,M,,',
            'GNGSA,A,3,23,29,07,08,09,18,26,28,,,,,1.94,1.18,1.54,1',
            'GPGSV,3,1,10,23,38,230,44,29,71,156,47,07,29,116,41,08,09,081,36',
            'GPGSV,3,2,10,10,07,189,,05,05,220,,09,34,274,42,18,25,309,44',
            'GPGSV,3,3,10,26,82,187,47,28,43,056,46',
            'GNTXT,01,01,02,ANTSTATUS=OK',
        );
        self::assertSame([7, 0, 1], [$reading->whole, $reading->broken, $reading->unknown]);
        $fix = $reading->last();
        self::assertNotNull($fix);
        // 47° 17.11399′ and 8° 33.91590′.
        self::assertEqualsWithDelta(47 + 17.11399 / 60, $fix->latDeg, 1e-9);
        self::assertEqualsWithDelta(8 + 33.91590 / 60, $fix->lonDeg, 1e-9);
        self::assertSame(
            [34_045.0, 499.6, 3, 8, 1.01, 77.52],
            [$fix->timeS, $fix->heightM, $fix->mode, $fix->used, $fix->hdop, $fix->courseDeg],
        );
        self::assertEqualsWithDelta(0.004 * 1852 / 3600, $fix->speedMs, 1e-6);
        self::assertCount(10, $reading->satellites);
        $by = array_combine(array_map(static fn (Satellite $s): int => $s->number, $reading->satellites), $reading->satellites);
        self::assertEquals(new Satellite('GP', 29, 71.0, 156.0, 47.0, true), $by[29]);
        self::assertEquals(new Satellite('GP', 10, 7.0, 189.0, null, false), $by[10]);
        self::assertCount(8, array_filter($reading->satellites, static fn (Satellite $s): bool => $s->used));
    }

    /** @return iterable<string, array{string, ?float, ?float}> */
    public static function places(): iterable
    {
        yield 'south and west' => ['3356.454,S,15112.000,W', -(33 + 56.454 / 60), -(151 + 12 / 60)];
        yield 'nought' => ['0000.000,N,00000.000,E', 0.0, 0.0];
        yield 'sixty minutes' => ['3360.000,N,00000.000,E', null, null];
        yield 'beyond the pole' => ['9000.001,N,00000.000,E', null, null];
        yield 'no hemisphere' => ['3356.454,,15112.000,W', null, null];
        yield 'degrees too short' => ['356.454,N,15112.000,W', null, null];
        yield 'letters' => ['33S6.454,N,15112.000,W', null, null];
    }

    #[DataProvider('places')]
    public function testPlaces(string $written, ?float $lat, ?float $lon): void
    {
        $reading = self::read("GPGGA,120000,$written,1,08,0.9,10.0,M,0,M,,");
        self::assertSame(null === $lat ? [0, 1] : [1, 0], [$reading->whole, $reading->broken]);
        if (null !== $lat) {
            self::assertEqualsWithDelta($lat, $reading->last()?->latDeg, 1e-9);
            self::assertEqualsWithDelta($lon, $reading->last()?->lonDeg, 1e-9);
        }
    }

    public function testTheFirstFixAndMidnight(): void
    {
        $lines = [];
        for ($i = 0; $i < 60; ++$i) {
            $time = \sprintf('%02d%02d%02d', intdiv(86_370 + $i, 3600) % 24, intdiv(86_370 + $i, 60) % 60, (86_370 + $i) % 60);
            $lines[] = $i < 41 ? "GPGGA,$time,,,,,0,02,99.99,,,,,," : "GPGGA,$time,5454.000,N,00324.000,W,1,09,0.9,10.0,M,0,M,,";
        }
        $reading = self::read(...$lines);
        self::assertSame(41.0, $reading->firstFixS());
        self::assertSame(9, $reading->used());
        self::assertSame(59.0, $reading->last()?->timeS - $reading->fixes[0]->timeS);
        self::assertNull(self::read(...\array_slice($lines, 0, 30))->firstFixS());
    }

    /** The same in pieces of any length as in one. */
    public function testItIsReadAsItComes(): void
    {
        $stream = self::flown(5, 60);
        $whole = new NmeaReader();
        $whole->feed($stream);
        foreach ([1, 7, 64, 1000] as $size) {
            $reader = new NmeaReader();
            foreach (str_split($stream, $size) as $piece) {
                $reader->feed($piece);
            }
            self::assertEquals($whole->reading(), $reader->reading());
            $whole = new NmeaReader();
            $whole->feed($stream);
        }
    }

    public function testWhatContradictsItsNeighboursCountsAsBroken(): void
    {
        $good = static fn (int $s, string $lat): string => "GPGGA,1200{$s},$lat,N,00324.000,W,1,09,0.9,10.0,M,0,M,,";
        $reading = self::read($good(10, '5454.000'), $good(11, '5454.001'), $good(12, '5154.001'), $good(13, '5454.002'));
        self::assertCount(3, $reading->there());
        self::assertSame(1, $reading->broken);
        $reading = self::read(
            'GPRMC,120010,A,5454.000,N,00324.000,W,0,0,291126,,,A',
            $good(10, '5453.000'),
            $good(11, '5454.000'),
            $good(12, '5454.000'),
        );
        self::assertSame(1, $reading->broken, 'GGA and RMC of one moment differ');
    }

    /** 5,000 spoilt streams: bits, bytes, cuts, doubled pieces, other people's rubbish. No crash, and no fix where the craft never was. */
    public function testFuzzedStreams(): void
    {
        mt_srand(4711);
        $plain = self::flown(8, 12);
        $about = LocalMetres::about(...self::HOME);
        $seen = 0;
        for ($case = 0; $case < 5000; ++$case) {
            $reader = new NmeaReader();
            $reader->feed(self::spoilt($plain, $case));
            $reading = $reader->reading();
            foreach ($reading->there() as $fix) {
                [$north, $east] = $about->of((float) $fix->latDeg, (float) $fix->lonDeg);
                self::assertLessThan(200.0, hypot($north, $east), "case $case: a fix where the craft never was");
                ++$seen;
            }
        }
        self::assertGreaterThan(10_000, $seen, 'and most of what was sound is read');
    }

    private static function spoilt(string $stream, int $case): string
    {
        $n = \strlen($stream);
        for ($hit = 0, $hits = mt_rand(1, 12); $hit < $hits; ++$hit) {
            $at = mt_rand(0, $n - 2);
            switch (($case + $hit) % 6) {
                case 0:
                    $stream[$at] = \chr(\ord($stream[$at]) ^ (1 << mt_rand(0, 7)));
                    break;
                case 1:
                    $stream[$at] = \chr(mt_rand(0, 255));
                    break;
                case 2:
                    // The same bit twice in one line: the checksum stays right.
                    $bit = 1 << mt_rand(0, 3);
                    $other = min($n - 1, $at + mt_rand(1, 20));
                    $stream[$at] = \chr(\ord($stream[$at]) ^ $bit);
                    $stream[$other] = \chr(\ord($stream[$other]) ^ $bit);
                    break;
                case 3:
                    $stream = substr_replace($stream, '', $at, mt_rand(1, 30));
                    break;
                case 4:
                    $stream = substr_replace($stream, substr($stream, mt_rand(0, $n - 40), mt_rand(1, 40)), $at, 0);
                    break;
                default:
                    $stream = substr_replace($stream, random_bytes(mt_rand(1, 20)), $at, 0);
            }
            $n = \strlen($stream);
        }

        return $stream;
    }

    /** Some seconds of a walk about home, GGA and RMC. */
    private static function flown(int $seed, int $seconds): string
    {
        $about = LocalMetres::about(...self::HOME);
        $out = '';
        for ($i = 0; $i < $seconds; ++$i) {
            [$lat, $lon] = $about->place(2.0 * sin($seed + $i / 9), 2.0 * cos($seed + $i / 7));
            $place = \sprintf('%02d%08.5f,N,%03d%08.5f,W', (int) $lat, 60 * ($lat - (int) $lat), (int) -$lon, 60 * (-$lon - (int) -$lon));
            $time = \sprintf('1200%02d.00', $i % 60);
            $out .= Sentence::write("GNRMC,$time,A,$place,0.1,0.0,291126,,,A").Sentence::write(
                "GNGGA,$time,$place,1,10,0.8,4.0,M,50.0,M,,",
            );
        }

        return $out;
    }

    private static function read(string ...$bodies): NmeaReading
    {
        $reader = new NmeaReader();
        $reader->feed(implode('', array_map(Sentence::write(...), $bodies)));

        return $reader->reading();
    }
}
