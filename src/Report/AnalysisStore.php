<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Doctrine\DBAL\Connection;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\FlightLog\Passage;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Fact\StoredDataUnreadable;
use Ortholex\Core\Report\AxisAnalysis;
use Ortholex\Core\Report\Charts;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Together\Together;

/**
 * Results of analyses, kept by the hash of log and analysis, so that each is computed once.
 *
 * What is short is computed when it is first asked for; a long log has to be computed by a job. A log with windows struck
 * out keeps its own result beside the whole one, with only the steps of those axes reckoned anew.
 */
final class AnalysisStore
{
    /** Values, all traces together, beyond which no page waits: half a minute and more of a usual log. */
    private const MOST_AT_ONCE = 3_000_000;

    /** @var array<string, Report> by key: a page asks for the same one from several places */
    private array $reports = [];

    public function __construct(
        private readonly Connection $db,
        private readonly LogStore $logs,
        private readonly ReportJson $json,
        private readonly Together $together,
        private readonly Jobs $jobs,
    ) {
    }

    /**
     * What a log's analysis says.
     *
     * @throws NotYetAnalysed when it is not at hand, and long or under way
     */
    public function report(Log $log, ?Passage $of = null): Report
    {
        return $this->reports[$this->name($log, $of)] ??= $this->read($log, $of, 'report', Report::fromArray(...));
    }

    /**
     * The curves behind it.
     *
     * @throws NotYetAnalysed when it is not at hand, and long or under way
     */
    public function charts(Log $log, ?Passage $of = null): Charts
    {
        return $this->read($log, $of, 'charts', Charts::fromArray(...));
    }

    /**
     * Both as one JSON text: the report as the command line prints it, the curves without unpacking.
     *
     * @throws NotYetAnalysed when it is not at hand, and long or under way
     */
    public function text(Log $log, ?Passage $of = null): string
    {
        $report = json_encode($this->json->of($this->report($log, $of)), \JSON_THROW_ON_ERROR);

        return '{"report":'.$report.',"charts":'.$this->at($log, $of, 'charts').'}';
    }

    /** What the analysis of a log, as it is now judged, is known by: another one has another name. */
    public function name(Log $log, ?Passage $of = null): string
    {
        return self::key($log, $of, array_filter($log->struck));
    }

    public function has(Log $log, ?Passage $of = null): bool
    {
        return false !== $this->db->fetchOne('SELECT 1 FROM analysis WHERE hash = ?', [self::key($log, $of, [])]);
    }

    /** Computes and keeps, however long it takes. */
    public function compute(Log $log, ?Passage $of = null): void
    {
        $flight = $this->logs->load($log);
        $flight = null === $of ? $flight : $flight->between($of->fromS, $of->toS);
        $analysis = FlightAnalysis::of($flight, together: $this->together);
        $this->keep(self::key($log, $of, []), $log, Report::of($flight, $analysis), Charts::of($analysis));
    }

    /**
     * What is kept and cannot be read is reckoned anew: it follows from the log.
     *
     * @template T of object
     *
     * @param 'report'|'charts'   $column
     * @param \Closure(Stored): T $made
     *
     * @return T
     */
    private function read(Log $log, ?Passage $of, string $column, \Closure $made): object
    {
        try {
            return $made(self::decoded($this->at($log, $of, $column)));
        } catch (\JsonException|StoredDataUnreadable|\ValueError) {
            foreach ([[], array_filter($log->struck)] as $struck) {
                $this->db->executeStatement('DELETE FROM analysis WHERE hash = ?', [self::key($log, $of, $struck)]);
            }

            return $made(self::decoded($this->at($log, $of, $column)));
        }
    }

    /** @param 'report'|'charts' $column */
    private function at(Log $log, ?Passage $of, string $column): string
    {
        $struck = array_filter($log->struck);
        $stored = $this->column(self::key($log, $of, $struck), $column);
        if (null === $stored) {
            if (null === $this->column(self::key($log, $of, []), $column)) {
                $seconds = null === $of ? $log->durationS : min($log->durationS, $of->toS - $of->fromS);
                $comes = $this->jobs->readsLogs($log->craft);
                if ($comes || $seconds * $log->rateHz * \count($log->traces) > self::MOST_AT_ONCE) {
                    throw new NotYetAnalysed($log, $of, $comes);
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
        $report = Report::fromArray(self::decoded((string) $this->column(self::key($log, $of, []), 'report')));
        $charts = Charts::fromArray(self::decoded((string) $this->column(self::key($log, $of, []), 'charts')));
        foreach ($struck as $name => $windows) {
            $axis = Axis::from($name);
            $flight = $this->logs->load(
                $log,
                array_values(
                    array_filter(
                        $log->traces,
                        static fn (string $t): bool => str_contains($t, "_$name") || str_starts_with($t, 'setpoint_'),
                    ),
                ),
            );
            $step = AxisAnalysis::of(null === $of ? $flight : $flight->between($of->fromS, $of->toS), $axis, $windows);
            $report = $report->withStep($step);
            $charts = $charts->withStep($step);
        }
        $this->keep(self::key($log, $of, $struck), $log, $report, $charts);
    }

    private function keep(string $key, Log $log, Report $report, Charts $charts): void
    {
        $this->db->executeStatement('INSERT OR REPLACE INTO analysis (hash, log_id, report, charts) VALUES (?, ?, ?, ?)', [
            $key,
            $log->id,
            json_encode($report->toArray(), \JSON_THROW_ON_ERROR),
            json_encode($charts->toArray(), \JSON_THROW_ON_ERROR),
        ]);
    }

    private function column(string $key, string $column): ?string
    {
        $stored = $this->db->fetchOne("SELECT $column FROM analysis WHERE hash = ? AND json_valid($column)", [$key]);

        return \is_string($stored) ? $stored : null;
    }

    private static function decoded(string $json): Stored
    {
        $data = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);

        return Stored::of(\is_array($data) ? $data : []);
    }

    /** @param array<string, list<float>> $struck */
    private static function key(Log $log, ?Passage $of, array $struck): string
    {
        return hash(
            'sha256',
            $log->sha256.
                '/'.
                $log->id.
                '/'.
                FlightAnalysis::VERSION.
                (null === $of ? '' : "/$of->fromS/$of->toS").
                ([] === $log->turned ? '' : '/turned '.implode(' ', $log->turned)).
                ([] === $struck ? '' : '/without '.json_encode($struck)),
        );
    }
}
