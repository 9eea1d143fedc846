<?php

declare(strict_types=1);

namespace Ortholex\Core\Position;

use Ortholex\Core\FlightLog\FlightLog;

/**
 * Where a flight went, as GPX 1.1 (topografix) and GeoJSON (RFC 7946). Home, where it began, is left out unless it is asked for: so is
 * every point within a distance of it.
 */
final readonly class Track
{
    public const WANTED = ['position_north_m', 'position_east_m', 'position_height_m', 'satellites'];

    /** Points this near to home tell where home is, m. */
    public const HOME_M = 30.0;

    /** Points a second that are written. */
    private const RATE_HZ = 5.0;

    /** @param list<array{float, float, float, float}> $points s, latitude and longitude in deg, height over take-off in m */
    private function __construct(public array $points, public int $leftOut)
    {
    }

    /**
     * @param float $latDeg  of the origin of its metres
     * @param bool  $home    whether what lies near the beginning is told
     *
     * @return self|null null for a log without a position
     */
    public static function of(FlightLog $log, float $latDeg, float $lonDeg, bool $home): ?self
    {
        foreach (self::WANTED as $trace) {
            if (!$log->has($trace)) {
                return null;
            }
        }
        $about = LocalMetres::about($latDeg, $lonDeg);
        [$north, $east, $height, $seen] = array_map($log->trace(...), self::WANTED);
        $every = max(1, (int) round($log->clock->rateHz / self::RATE_HZ));
        $points = [];
        $leftOut = 0;
        $first = null;
        foreach ($log->clock->segments as $segment) {
            for ($i = 0; $i < $segment->count; $i += $every) {
                $k = $segment->first + $i;
                if (($seen[$k] ?? 0) < 1) {
                    continue;
                }
                $first ??= [$north[$k], $east[$k]];
                if (!$home && hypot($north[$k] - $first[0], $east[$k] - $first[1]) < self::HOME_M) {
                    ++$leftOut;
                    continue;
                }
                [$lat, $lon] = $about->place(self::cm($north[$k]), self::cm($east[$k]));
                $at = $segment->startS + $i / $log->clock->rateHz;
                $points[] = [$at, round($lat, 7), round($lon, 7), round(self::cm($height[$k]), 1)];
            }
        }

        return new self($points, $leftOut);
    }

    /** To the centimetre, as a log has it that was written and read again: both have the same track. */
    private static function cm(float $m): float
    {
        return (float) \sprintf('%.2F', $m);
    }

    public function gpx(string $name, \DateTimeImmutable $began): string
    {
        $xml = new \XMLWriter();
        $xml->openMemory();
        $xml->setIndent(true);
        $xml->startDocument('1.0', 'UTF-8');
        $xml->startElement('gpx');
        $xml->writeAttribute('version', '1.1');
        $xml->writeAttribute('creator', 'Ortholex');
        $xml->writeAttribute('xmlns', 'http://www.topografix.com/GPX/1/1');
        $xml->startElement('trk');
        $xml->writeElement('name', $name);
        $xml->startElement('trkseg');
        foreach ($this->points as [$t, $lat, $lon, $height]) {
            $xml->startElement('trkpt');
            $xml->writeAttribute('lat', \sprintf('%.7F', $lat));
            $xml->writeAttribute('lon', \sprintf('%.7F', $lon));
            $xml->writeElement('ele', \sprintf('%.1F', $height));
            $xml->writeElement('time', self::time($began, $t));
            $xml->endElement();
        }
        $xml->endDocument();

        return $xml->outputMemory();
    }

    /** @return array<string, mixed> */
    public function geoJson(string $name, \DateTimeImmutable $began): array
    {
        return [
            'type' => 'Feature',
            'geometry' => [
                'type' => 'LineString',
                'coordinates' => array_map(static fn (array $p): array => [$p[2], $p[1], $p[3]], $this->points),
            ],
            'properties' => [
                'name' => $name,
                'times' => array_map(static fn (array $p): string => self::time($began, $p[0]), $this->points),
                'points_left_out_near_home' => $this->leftOut,
            ],
        ];
    }

    private static function time(\DateTimeImmutable $began, float $seconds): string
    {
        return $began->modify(\sprintf('+%d milliseconds', (int) round(1000 * $seconds)))
            ->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s.v\Z');
    }
}
