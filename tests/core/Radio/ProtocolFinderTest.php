<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Radio;

use Ortholex\Core\Position\NmeaScan;
use Ortholex\Core\Radio\Protocol\Crsf;
use Ortholex\Core\Radio\Protocol\LinkStatistics;
use Ortholex\Core\Radio\Protocol\RadioFrame;
use Ortholex\Core\Radio\Protocol\Sbus;
use Ortholex\Core\Radio\Wire\Edges;
use Ortholex\Core\Radio\Wire\ProtocolFinder;
use Ortholex\Core\Radio\Wire\Speaker;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/**
 * Who speaks on a wire. The wires are drawn here bit by bit, by code of this test's own: with clocks that are a little off, stamps of a
 * logic analyser's grid, sparks, captures that begin in the middle of a byte, and frames that are lost.
 */
final class ProtocolFinderTest extends TestCase
{
    public function testTwoHundredOfTwoHundredAreNamed(): void
    {
        $seen = [];
        for ($seed = 1; $seed <= 200; ++$seed) {
            $dice = new Lcg(7919 * $seed);
            [$what, $edges, $wanted] = $this->wire($seed % 7, $dice);
            $found = ProtocolFinder::of($edges);
            self::assertSame($wanted['protocol'], $found->speaker->value, "case $seed, $what");
            self::assertSame($wanted['baud'], $found->baud, "case $seed, $what");
            self::assertSame($wanted['inverted'], $found->inverted, "case $seed, $what");
            self::assertSame($wanted['failsafe'], $found->failsafe, "case $seed, $what");
            foreach ($wanted['channels'] as $i => $us) {
                self::assertEqualsWithDelta($us, $found->channelsUs[$i], 1.1, "case $seed, $what, channel ".($i + 1));
            }
            if (null !== $wanted['interval']) {
                self::assertEqualsWithDelta($wanted['interval'], $found->intervalMs, 0.05, "case $seed, $what");
                self::assertEqualsWithDelta($wanted['lost'], $found->lostShare, 0.02, "case $seed, $what");
            }
            $seen[$what] = ($seen[$what] ?? 0) + 1;
        }
        self::assertCount(7, $seen);
    }

    public function testFramesWithoutALinkAndWithTheFailsafeFlagAreTold(): void
    {
        $times = $levels = [];
        for ($k = 0; $k < 10; ++$k) {
            $this->serial($times, $levels, Crsf::link(new LinkStatistics(-130, 0, 0, 0)), 1000 + 50_000 * $k, 420_000, false, false);
        }
        $found = ProtocolFinder::of(Edges::of($times, $levels, 1));
        self::assertSame(Speaker::Crsf, $found->speaker, 'a receiver that has no transmitter is known by what it says of its link');
        self::assertTrue($found->failsafe);
        self::assertSame([], $found->channelsUs);
    }

    public function testPackedEdgesComeBack(): void
    {
        $dice = new Lcg(5);
        for ($n = 0; $n < 50; ++$n) {
            $times = $levels = [];
            $t = 0.0;
            for ($i = 0; $i < 200; ++$i) {
                $times[] = $t += round(0.1 * $dice->whole(1, 0 === $i % 10 ? 400_000 : 300), 1);
                $levels[] = ($n + $i) & 1;
            }
            $edges = Edges::of($times, $levels);
            $back = Edges::unpack($edges->pack());
            self::assertSame($edges->levels, $back->levels);
            self::assertEqualsWithDelta($edges->timesUs, $back->timesUs, 0.051);
        }
        self::assertSame(0, Edges::unpack('')->count());
    }

    /**
     * @return array{string, Edges, array{protocol: string, baud: ?int, inverted: bool, failsafe: bool, channels: list<float>,
     *     interval: ?float, lost: float}}
     */
    private function wire(int $kind, Lcg $dice): array
    {
        $channels = array_map(static fn (): float => (float) $dice->whole(985, 2015), range(1, 16));
        $inverted = 1 === $dice->whole(0, 1);
        $times = $levels = [];
        $off = 1 + 0.016 * $dice->next();
        $start = 1e6 * abs($dice->next());
        $lostOf = $dice->whole(0, 2);
        $wanted = ['protocol' => 'unknown', 'baud' => null, 'inverted' => false, 'failsafe' => false];
        $wanted += ['channels' => [], 'interval' => null, 'lost' => 0.0];
        $lost = 0;
        switch ($kind) {
            case 0:
            case 1:
                $failsafe = 0 === $kind && 1 === $dice->whole(0, 3);
                $interval = 0 === $kind ? [7000, 9000, 14_000][$dice->whole(0, 2)] : [4000, 6667, 20_000][$dice->whole(0, 2)];
                $baud = 0 === $kind ? 100_000 : [115_200, 400_000, 420_000, 921_600][$dice->whole(0, 3)];
                for ($k = 0; $k < 30; ++$k) {
                    if ($k > 1 && $k < 28 && $lostOf > 0 && 0 === $k % (10 / $lostOf)) {
                        ++$lost;
                        continue;
                    }
                    $bytes = 0 === $kind
                        ? Sbus::encode(new RadioFrame($channels, false, $failsafe))
                        : Crsf::channels($channels).(0 === $k % 6 ? Crsf::link(new LinkStatistics(-60, 99, 8, 25)) : '');
                    $this->serial($times, $levels, $bytes, $start + $interval * $k, $baud * $off, $inverted, 0 === $kind);
                }
                $wanted = [
                    'protocol' => 0 === $kind ? 'sbus' : 'crsf',
                    'baud' => $baud,
                    'inverted' => $inverted,
                    'failsafe' => $failsafe,
                    'channels' => $channels,
                    'interval' => $interval / 1000,
                    'lost' => $lost / 30,
                ];
                $what = $wanted['protocol'];
                break;
            case 2:
                $count = $dice->whole(4, 12);
                $pulse = $dice->whole(200, 420);
                for ($k = 0; $k < 12; ++$k) {
                    $at = $start + 30_000 * $k;
                    foreach ([...\array_slice($channels, 0, $count), 0.0] as $us) {
                        array_push($times, $at, $at + $pulse);
                        array_push($levels, $inverted ? 0 : 1, $inverted ? 1 : 0);
                        $at += $us;
                    }
                }
                $what = 'pulse train';
                $channels = \array_slice($channels, 0, $count);
                $wanted = ['protocol' => 'ppm', 'inverted' => $inverted, 'channels' => $channels, 'interval' => 30.0] + $wanted;
                break;
            case 3:
                $baud = [4800, 9600, 19_200, 38_400, 57_600, 115_200][$dice->whole(0, 5)];
                [$second, $minute] = [$dice->whole(0, 59), $dice->whole(0, 59)];
                $body = \sprintf('GPGGA,1200%02d.00,52%02d.1234,N,00103.4321,E,1,09,0.9,3.0,M,45.0,M,,', $second, $minute);
                foreach ([$body, 'GPRMC,120000.00,V,,,,,,,231126,,,N'] as $i => $sentence) {
                    $bytes = '$'.$sentence.'*'.NmeaScan::checksum($sentence)."\r\n";
                    $this->serial($times, $levels, $bytes, $start + 300_000 * $i, $baud * $off, $inverted, false);
                }
                $what = 'position';
                $wanted = ['protocol' => 'nmea', 'baud' => $baud, 'inverted' => $inverted] + $wanted;
                break;
            case 4:
                // Someone speaks at a rate that is nobody's, or what is said has no frame.
                for ($k = 0; $k < 40; ++$k) {
                    $bytes = '';
                    for ($i = 0, $n = $dice->whole(3, 40); $i < $n; ++$i) {
                        $bytes .= \chr($dice->whole(0, 255));
                    }
                    $baud = [31_250, 100_000, 250_000, 420_000][$dice->whole(0, 3)];
                    $this->serial($times, $levels, $bytes, $start + 9000 * $k, $baud, $inverted, false);
                }
                $what = 'rubbish';
                break;
            case 5:
                // A torn wire that catches hum.
                for ($t = 0.0, $level = 0; $t < 400_000; $t += 10 + 9000 * abs($dice->next())) {
                    $times[] = $t;
                    $levels[] = $level = 1 - $level;
                }
                $what = 'hum';
                break;
            default:
                if (1 === $dice->whole(0, 1)) {
                    $times = [120.0, 180.0];
                    $levels = [0, 1];
                }
                $what = 'silence';
                $wanted = ['protocol' => 'silent'] + $wanted;
        }
        if ($kind < 4) {
            [$times, $levels] = $this->asCaught($times, $levels, $dice, $kind);
        }

        return [$what, Edges::of($times, $levels), $wanted];
    }

    /**
     * As a logic analyser writes it: on a grid of time, with a spark now and then, begun in the middle.
     *
     * @param list<float> $times
     * @param list<int>   $levels
     *
     * @return array{list<float>, list<int>}
     */
    private function asCaught(array $times, array $levels, Lcg $dice, int $kind): array
    {
        $skip = $dice->whole(0, 2 === $kind || 3 === $kind ? 0 : 9);
        $grid = [0.0417, 0.1, 0.25][$dice->whole(0, 2)];
        $out = [[], []];
        foreach ($times as $i => $time) {
            if ($i < $skip) {
                continue;
            }
            $out[0][] = round($time / $grid) * $grid;
            $out[1][] = $levels[$i];
            // A spark in a pause, well before whatever comes next.
            if (0 === $i % 997 && ($times[$i + 1] ?? $time) - $time > 1500) {
                array_push($out[0], $time + 1000, $time + 1000.2);
                array_push($out[1], 1 - $levels[$i], $levels[$i]);
            }
        }

        return $out;
    }

    /**
     * @param list<float> $times
     * @param list<int>   $levels
     */
    private function serial(array &$times, array &$levels, string $bytes, float $at, float $baud, bool $inverted, bool $evenTwo): void
    {
        $mark = $inverted ? 0 : 1;
        $level = $mark;
        foreach (str_split($bytes) as $byte) {
            $bits = '0'.strrev(\sprintf('%08b', \ord($byte)));
            if ($evenTwo) {
                $bits .= (string) (substr_count(\sprintf('%b', \ord($byte)), '1') % 2).'1';
            }
            $bits .= '1';
            foreach (str_split($bits) as $k => $bit) {
                $now = '1' === $bit ? $mark : 1 - $mark;
                if ($now !== $level) {
                    $times[] = $at + ($k * 1e6) / $baud;
                    $levels[] = $level = $now;
                }
            }
            $at += (\strlen($bits) * 1e6) / $baud;
        }
    }
}
