<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Doctrine\DBAL\Connection;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogPlan;

/** What was answered of foreign columns, remembered for every log with the same header. */
final readonly class ColumnMaps
{
    public function __construct(private Connection $db)
    {
    }

    /**
     * @param array<string, string|null> $map over what is remembered
     *
     * @throws LogError when it is no log
     */
    public function plan(string $path, array $map = []): LogPlan
    {
        $plan = LogPlan::of($path);
        $map += $this->remembered($plan->headerKey());

        return [] === $map ? $plan : LogPlan::of($path, $map);
    }

    /** @param array<string, string|null> $map by column name */
    public function remember(string $headerKey, array $map): void
    {
        $this->db->executeStatement('INSERT OR REPLACE INTO column_map (header, map) VALUES (?, ?)', [
            $headerKey,
            json_encode($map, \JSON_THROW_ON_ERROR),
        ]);
    }

    /** @return array<string, string|null> */
    private function remembered(string $headerKey): array
    {
        $stored = $this->db->fetchOne('SELECT map FROM column_map WHERE header = ?', [$headerKey]);
        $data = \is_string($stored) ? json_decode($stored, true) : null;
        $map = [];
        foreach (\is_array($data) ? $data : [] as $name => $trace) {
            $map[(string) $name] = \is_string($trace) ? $trace : null;
        }

        return $map;
    }
}
