<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Recorder;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;

/** Which recordings of a craft are in the book already. */
final readonly class RecorderLogs
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** Numbers go on after an erasure; the bytes beside them tell a torn recording from the same one whole. */
    public static function key(int $number, int $bytes): string
    {
        return "$number-$bytes";
    }

    public function of(Craft $craft, int $number, int $bytes): ?Log
    {
        return $this->entities->getRepository(Log::class)->findOneBy(['craft' => $craft, 'recording' => self::key($number, $bytes)]);
    }

    /**
     * @param array<int, int> $recordings bytes by number
     *
     * @return array<int, Log|null> by number
     */
    public function all(Craft $craft, array $recordings): array
    {
        $keys = array_map(self::key(...), array_keys($recordings), $recordings);
        $logs = [];
        foreach ($this->entities->getRepository(Log::class)->findBy(['craft' => $craft, 'recording' => $keys]) as $log) {
            $logs[$log->recording] = $log;
        }

        return array_combine(array_keys($recordings), array_map(static fn (string $key): ?Log => $logs[$key] ?? null, $keys));
    }
}
