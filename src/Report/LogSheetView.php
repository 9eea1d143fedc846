<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\Passage;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Report\StepReport;
use Ortholex\Core\Step\StepOfSize;
use Ortholex\Core\Step\StepRanking;

/**
 * What sheets 53 and 54 show: one log, perhaps others beside it, and the analyses of all.
 *
 * @phpstan-type Bands array{alike: bool, bands: list<array{from_hz: float, to_hz: float, axes: array<string, float>}>}
 */
final readonly class LogSheetView
{
    /**
     * @param list<Log> $logs     all, for the choice
     * @param list<Log> $besides
     * @param list<Report> $others   reports of $besides
     * @param array<string, array<string, array{from: mixed, to: mixed}>> $changed  settings between each of $besides and $log, by code
     * @param list<Passage> $passages of $log
     * @param Passage|null $passage  that the analyses look at; the whole flight when null
     * @param list<ResponseFinding> $findings
     * @param array<string, list<StepRanking>> $ranked   by axis, where several logs are shown
     * @param string $axis     to begin with, or empty
     * @param array<string, Bands> $compared noise of $log less each of $besides by bands, dB, by code
     */
    public function __construct(
        public array $logs,
        public ?Log $log,
        public array $besides,
        public ?Report $report,
        public array $others,
        public array $changed,
        public array $findings,
        public string $answer,
        public array $passages,
        public ?Passage $passage,
        public array $ranked = [],
        public string $axis = '',
        public array $compared = [],
    ) {
    }

    /** @return array<string, Report> reports of all logs by code, that of $log first */
    public function reports(): array
    {
        $all = null === $this->log || null === $this->report ? [] : [$this->log->code => $this->report];
        foreach ($this->besides as $i => $log) {
            $all[$log->code] = $this->others[$i];
        }

        return $all;
    }

    /** Whether an axis is drawn when the sheet opens: the one asked for, else those that the sheet begins with. */
    public function draws(string $axis, string ...$usual): bool
    {
        return null !== Axis::tryFrom($this->axis) ? $this->axis === $axis : \in_array($axis, $usual, true);
    }

    /** @return array<string, array<string, StepOfSize>> small, medium and large moves by axis */
    public function sizes(): array
    {
        return array_map(static fn (StepReport $s): array => $s->bySize, $this->report->steps ?? []);
    }
}
