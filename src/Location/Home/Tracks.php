<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Position\Track;
use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;

/** Where flights of a craft went, of those whose logs tell. */
final readonly class Tracks
{
    private const MOST = 12;

    public function __construct(private LogBook $book, private LogStore $logs)
    {
    }

    /** @return list<Log> the newest with a position */
    public function logs(Craft $craft): array
    {
        $tell = static fn (Log $log): bool => [] === array_diff(Track::WANTED, $log->traces);

        return \array_slice(array_values(array_filter($this->book->of($craft), $tell)), 0, self::MOST);
    }

    /** Null for a log that does not tell where it was. */
    public function of(Log $log, bool $home): ?Track
    {
        if ([] !== array_diff(Track::WANTED, $log->traces)) {
            return null;
        }
        try {
            $head = Yaml::parse($log->head);
        } catch (ParseException) {
            return null;
        }
        $at = static fn (string $name): ?float => \is_array($head) && is_numeric($head[$name] ?? null) ? (float) $head[$name] : null;
        $lat = $at('flight.origin_lat_deg');
        $lon = $at('flight.origin_lon_deg');
        try {
            return null === $lat || null === $lon ? null : Track::of($this->logs->load($log, Track::WANTED), $lat, $lon, $home);
        } catch (LogError) {
            return null;
        }
    }
}
