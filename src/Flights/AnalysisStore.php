<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Doctrine\DBAL\Connection;
use Ortholex\Core\Analysis\AnalysisCharts;
use Ortholex\Core\Analysis\AnalysisReport;
use Ortholex\Core\Analysis\FlightAnalysis;

/** Results of analyses, kept by the hash of log and analysis, so that each is computed once. */
final readonly class AnalysisStore
{
    public function __construct(private Connection $db, private LogStore $logs)
    {
    }

    /** @return array{report: array<string, mixed>, charts: array<string, mixed>} */
    public function of(Log $log): array
    {
        $key = $this->key($log);
        $stored = $this->db->fetchOne('SELECT result FROM analysis WHERE hash = ?', [$key]);
        if (\is_string($stored)) {
            /** @var array{report: array<string, mixed>, charts: array<string, mixed>} $result */
            $result = json_decode($stored, true, 64, \JSON_THROW_ON_ERROR);

            return $result;
        }
        $result = $this->compute($log);
        $json = json_encode($result, \JSON_THROW_ON_ERROR);
        $this->db->executeStatement('INSERT OR REPLACE INTO analysis (hash, log_id, result) VALUES (?, ?, ?)', [$key, $log->id, $json]);
        /** @var array{report: array<string, mixed>, charts: array<string, mixed>} $same as it will be read next time */
        $same = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);

        return $same;
    }

    /** The stored text as it is, for an answer that needs no unpacking; null when not yet computed. */
    public function text(Log $log): ?string
    {
        $stored = $this->db->fetchOne('SELECT result FROM analysis WHERE hash = ?', [$this->key($log)]);

        return \is_string($stored) ? $stored : null;
    }

    /** @return array{report: array<string, mixed>, charts: array<string, mixed>} */
    private function compute(Log $log): array
    {
        $flight = $this->logs->load($log);
        $analysis = FlightAnalysis::of($flight);

        return ['report' => AnalysisReport::of($flight, $analysis), 'charts' => AnalysisCharts::of($analysis)];
    }

    private function key(Log $log): string
    {
        return hash('sha256', $log->sha256.'/'.$log->id.'/'.FlightAnalysis::VERSION);
    }
}
