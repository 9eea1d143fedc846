<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Homing\HoverAmperes;
use Symfony\Contracts\Cache\CacheInterface;

/** What a craft takes from its pack while it hovers, from its newest log that tells. */
final readonly class HoverCurrent
{
    private const LOGS = 6;

    public function __construct(private LogBook $book, private LogStore $logs, private CacheInterface $cache)
    {
    }

    /** @return array{HoverAmperes, string}|null and the code of the log */
    public function of(Craft $craft): ?array
    {
        foreach (\array_slice($this->book->of($craft), 0, self::LOGS) as $log) {
            $found = $this->cache->get("hover_amperes.$log->id", fn (): ?HoverAmperes => $this->in($log));
            if (null !== $found) {
                return [$found, $log->code];
            }
        }

        return null;
    }

    private function in(Log $log): ?HoverAmperes
    {
        try {
            return HoverAmperes::of($this->logs->load($log, HoverAmperes::WANTED));
        } catch (LogError) {
            return null;
        }
    }
}
