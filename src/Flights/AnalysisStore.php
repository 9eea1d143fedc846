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

    /**
     * Figures and sentences of a log's analysis; computed now if it was not yet.
     *
     * @return array<mixed> as AnalysisReport gives it
     */
    public function report(Log $log, ?Passage $of = null): array
    {
        return self::decoded($this->column($log, 'report', $of) ?? $this->computed($log, $of)['report']);
    }

    /** @return array<mixed> as AnalysisCharts gives it */
    public function charts(Log $log, ?Passage $of = null): array
    {
        return self::decoded($this->column($log, 'charts', $of) ?? $this->computed($log, $of)['charts']);
    }

    /** Both as one JSON text, put together without unpacking. */
    public function text(Log $log, ?Passage $of = null): string
    {
        if (null === $this->column($log, 'report', $of)) {
            $this->computed($log, $of);
        }

        return '{"report":'.$this->column($log, 'report', $of).',"charts":'.$this->column($log, 'charts', $of).'}';
    }

    public function has(Log $log): bool
    {
        return false !== $this->db->fetchOne('SELECT 1 FROM analysis WHERE hash = ?', [$this->key($log)]);
    }

    /** @param 'report'|'charts' $column */
    private function column(Log $log, string $column, ?Passage $of = null): ?string
    {
        $stored = $this->db->fetchOne("SELECT $column FROM analysis WHERE hash = ?", [$this->key($log, $of)]);

        return \is_string($stored) ? $stored : null;
    }

    /** @return array{report: string, charts: string} */
    private function computed(Log $log, ?Passage $of = null): array
    {
        $flight = $this->logs->load($log);
        $flight = null === $of ? $flight : $flight->between($of->fromS, $of->toS);
        $analysis = FlightAnalysis::of($flight);
        $report = json_encode(AnalysisReport::of($flight, $analysis), \JSON_THROW_ON_ERROR);
        $charts = json_encode(AnalysisCharts::of($analysis), \JSON_THROW_ON_ERROR);
        $this->db->executeStatement('INSERT OR REPLACE INTO analysis (hash, log_id, report, charts) VALUES (?, ?, ?, ?)', [$this->key($log, $of), $log->id, $report, $charts]);

        return ['report' => $report, 'charts' => $charts];
    }

    /** @return array<mixed> */
    private static function decoded(string $json): array
    {
        $data = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);

        return \is_array($data) ? $data : [];
    }

    private function key(Log $log, ?Passage $of = null): string
    {
        return hash('sha256', $log->sha256.'/'.$log->id.'/'.FlightAnalysis::VERSION.(null === $of ? '' : "/$of->fromS/$of->toS"));
    }
}
