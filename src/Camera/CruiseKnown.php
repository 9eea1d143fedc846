<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\Core\Camera\CruiseTilt;
use Ortholex\Core\FlightLog\LogError;
use Symfony\Contracts\Cache\CacheInterface;

/** How a craft leans at its cruise, from its newest log that tells. */
final readonly class CruiseKnown
{
    private const LOGS = 6;
    private const WANTED = ['ground_speed_ms', 'attitude_pitch_deg'];

    public function __construct(private LogBook $book, private LogStore $logs, private CacheInterface $cache)
    {
    }

    /** @return array{CruiseTilt, string}|null and the code of the log */
    public function of(Craft $craft): ?array
    {
        foreach (\array_slice($this->book->of($craft), 0, self::LOGS) as $log) {
            $found = $this->cache->get("cruise_tilt.$log->id", fn (): ?CruiseTilt => $this->in($log));
            if (null !== $found) {
                return [$found, $log->code];
            }
        }

        return null;
    }

    private function in(Log $log): ?CruiseTilt
    {
        if ([] !== array_diff(self::WANTED, $log->traces)) {
            return null;
        }
        try {
            $loaded = $this->logs->load($log, self::WANTED);

            return CruiseTilt::of($loaded->trace(self::WANTED[0]), $loaded->trace(self::WANTED[1]));
        } catch (LogError) {
            return null;
        }
    }
}
