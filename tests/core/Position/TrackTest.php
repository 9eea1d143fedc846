<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Position;

use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Position\LocalMetres;
use Ortholex\Core\Position\Track;
use PHPUnit\Framework\TestCase;

/** Tracks of flights, as others read them. */
final class TrackTest extends TestCase
{
    /** Straight north at 10 m/s for 12 s, from home; a degree of the meridian is 111 km and a bit. */
    public function testATrackIsWhereItWas(): void
    {
        $track = $this->track(home: true);
        self::assertSame(0, $track->leftOut);
        self::assertCount(60, $track->points);
        [$t, $lat, $lon, $height] = $track->points[50];
        self::assertEqualsWithDelta(10.0, $t, 1e-6);
        self::assertEqualsWithDelta(54.9 + 100 / 111_330, $lat, 2e-6);
        self::assertEqualsWithDelta(-3.4, $lon, 1e-7);
        self::assertSame(12.0, $height);
        [$north, $east] = LocalMetres::about(54.9, -3.4)->of($lat, $lon);
        self::assertEqualsWithDelta(100.0, $north, 0.05);
        self::assertEqualsWithDelta(0.0, $east, 0.05);
    }

    public function testHomeIsLeftOutUnlessItIsAskedFor(): void
    {
        $track = $this->track(home: false);
        self::assertGreaterThan(10, $track->leftOut);
        foreach ($track->points as [, $lat, $lon]) {
            [$north, $east] = LocalMetres::about(54.9, -3.4)->of($lat, $lon);
            self::assertGreaterThan(Track::HOME_M - 0.1, hypot($north, $east), 'no point tells where it began');
        }
    }

    public function testAsGpxAndAsGeoJson(): void
    {
        $track = $this->track(home: true);
        $began = new \DateTimeImmutable('2026-11-20T14:00:00+01:00');
        $gpx = simplexml_load_string($track->gpx('Bittern & co', $began));
        self::assertNotFalse($gpx);
        self::assertSame('Bittern & co', (string) $gpx->trk->name);
        self::assertCount(60, $gpx->trk->trkseg->trkpt);
        self::assertSame('2026-11-20T13:00:10.000Z', (string) $gpx->trk->trkseg->trkpt[50]->time, 'in UTC');
        self::assertEqualsWithDelta($track->points[50][1], (float) $gpx->trk->trkseg->trkpt[50]['lat'], 1e-7);
        $json = $track->geoJson('B-1', $began);
        self::assertIsArray($json['geometry']);
        self::assertSame('LineString', $json['geometry']['type']);
        self::assertIsArray($json['geometry']['coordinates']);
        self::assertSame([$track->points[50][2], $track->points[50][1], 12.0], $json['geometry']['coordinates'][50], 'longitude first');
    }

    public function testWhatHasNoFixIsNoPointAndALogWithoutPositionIsNoTrack(): void
    {
        $track = Track::of(self::log("0,0,0,0,0\n0.1,1,0,3,0\n0.2,2,0,3,9\n"), 54.9, -3.4, true);
        self::assertCount(1, $track->points ?? []);
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        file_put_contents($path, "time_s,throttle_pct\n0,1\n0.1,2\n0.2,3\n");
        self::assertNull(Track::of(LogReader::readFile($path), 54.9, -3.4, true));
        unlink($path);
    }

    private function track(bool $home): Track
    {
        $rows = '';
        for ($i = 0; $i < 120; ++$i) {
            $rows .= \sprintf("%.1f,%.2f,0,12,11\n", $i / 10, $i);
        }
        $track = Track::of(self::log($rows), 54.9, -3.4, $home);
        self::assertNotNull($track);

        return $track;
    }

    private static function log(string $rows): \Ortholex\Core\FlightLog\FlightLog
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        file_put_contents($path, "time_s,position_north_m,position_east_m,position_height_m,satellites\n$rows");
        $log = LogReader::readFile($path);
        unlink($path);

        return $log;
    }
}
