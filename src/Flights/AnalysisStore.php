<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Doctrine\DBAL\Connection;
use Ortholex\Core\Analysis\AnalysisCharts;
use Ortholex\Core\Analysis\AnalysisReport;
use Ortholex\Core\Analysis\FlightAnalysis;

/**
 * Results of analyses, kept by the hash of log and analysis, so that each is computed once.
 *
 * What is short is computed when it is first asked for; a long log has to be computed by a job. A log with windows struck
 * out keeps its own result beside the whole one, with only the steps of those axes reckoned anew.
 */
final readonly class AnalysisStore
{
    /** Values, all traces together, beyond which no page waits. */
    private const MOST_AT_ONCE = 8_000_000;

    public function __construct(private Connection $db, private LogStore $logs)
    {
    }

    /**
     * Figures and sentences of a log's analysis.
     *
     * @return array<mixed> as AnalysisReport gives it
     *
     * @throws NotYetAnalysed when it is long and not at hand
     */
    public function report(Log $log, ?Passage $of = null): array
    {
        return self::decoded($this->at($log, $of, 'report'));
    }

    /**
     * @return array<mixed> as AnalysisCharts gives it
     *
     * @throws NotYetAnalysed when it is long and not at hand
     */
    public function charts(Log $log, ?Passage $of = null): array
    {
        return self::decoded($this->at($log, $of, 'charts'));
    }

    /**
     * Both as one JSON text, put together without unpacking.
     *
     * @throws NotYetAnalysed when it is long and not at hand
     */
    public function text(Log $log, ?Passage $of = null): string
    {
        return '{"report":'.$this->at($log, $of, 'report').',"charts":'.$this->at($log, $of, 'charts').'}';
    }

    public function has(Log $log): bool
    {
        return false !== $this->db->fetchOne('SELECT 1 FROM analysis WHERE hash = ?', [self::key($log, null, [])]);
    }

    /** Computes and keeps, however long it takes. */
    public function compute(Log $log, ?Passage $of = null): void
    {
        $flight = $this->logs->load($log);
        $flight = null === $of ? $flight : $flight->between($of->fromS, $of->toS);
        $analysis = FlightAnalysis::of($flight);
        $this->keep(self::key($log, $of, []), $log, AnalysisReport::of($flight, $analysis), AnalysisCharts::of($analysis));
    }

    /** @param 'report'|'charts' $column */
    private function at(Log $log, ?Passage $of, string $column): string
    {
        $struck = array_filter($log->struck);
        $stored = $this->column(self::key($log, $of, $struck), $column);
        if (null === $stored) {
            if (null === $this->column(self::key($log, $of, []), $column)) {
                $seconds = null === $of ? $log->durationS : min($log->durationS, $of->toS - $of->fromS);
                if ($seconds * $log->rateHz * \count($log->traces) > self::MOST_AT_ONCE) {
                    throw new NotYetAnalysed($log, $of);
                }
                $this->compute($log, $of);
            }
            if ([] !== $struck) {
                $this->computeStruck($log, $of, $struck);
            }
            $stored = $this->column(self::key($log, $of, $struck), $column);
        }

        return $stored ?? throw new \LogicException("The analysis of $log->code was computed but not kept.");
    }

    /** @param array<string, list<float>> $struck */
    private function computeStruck(Log $log, ?Passage $of, array $struck): void
    {
        $report = self::decoded((string) $this->column(self::key($log, $of, []), 'report'));
        $charts = self::decoded((string) $this->column(self::key($log, $of, []), 'charts'));
        foreach ($struck as $axis => $windows) {
            $flight = $this->logs->load($log, array_values(array_filter($log->traces, static fn (string $t): bool => str_contains($t, "_$axis") || str_starts_with($t, 'setpoint_'))));
            $step = FlightAnalysis::without(null === $of ? $flight : $flight->between($of->fromS, $of->toS), $axis, $windows);
            $report = AnalysisReport::withStep($report, $step);
            $charts = AnalysisCharts::withStep($charts, $step);
        }
        $this->keep(self::key($log, $of, $struck), $log, $report, $charts);
    }

    /**
     * @param array<mixed> $report
     * @param array<mixed> $charts
     */
    private function keep(string $key, Log $log, array $report, array $charts): void
    {
        $this->db->executeStatement('INSERT OR REPLACE INTO analysis (hash, log_id, report, charts) VALUES (?, ?, ?, ?)', [$key, $log->id, json_encode($report, \JSON_THROW_ON_ERROR), json_encode($charts, \JSON_THROW_ON_ERROR)]);
    }

    private function column(string $key, string $column): ?string
    {
        $stored = $this->db->fetchOne("SELECT $column FROM analysis WHERE hash = ?", [$key]);

        return \is_string($stored) ? $stored : null;
    }

    /** @return array<mixed> */
    private static function decoded(string $json): array
    {
        $data = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);

        return \is_array($data) ? $data : [];
    }

    /** @param array<string, list<float>> $struck */
    private static function key(Log $log, ?Passage $of, array $struck): string
    {
        return hash('sha256', $log->sha256.'/'.$log->id.'/'.FlightAnalysis::VERSION.(null === $of ? '' : "/$of->fromS/$of->toS").([] === $log->turned ? '' : '/turned '.implode(' ', $log->turned)).([] === $struck ? '' : '/without '.json_encode($struck)));
    }
}
