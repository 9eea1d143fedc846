<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\TimeFault;
use Ortholex\Core\FlightLog\TimeFaultKind;

/** What a report says of the log itself: how long, how fast sampled, and what could not be read. */
final readonly class LogSummary
{
    /**
     * @param list<array{at_s: float, length_s: float}> $gaps
     * @param int                                       $timeFaults stamps that go back or repeat
     * @param list<string>                              $traces
     * @param list<string>                              $leftOut    columns that are no trace
     */
    private function __construct(
        public float $durationS,
        public float $rateHz,
        public int $samples,
        public array $gaps,
        public int $timeFaults,
        public BadRows $badRows,
        public array $traces,
        public array $leftOut,
    ) {
    }

    public static function of(FlightLog $log): self
    {
        return new self(
            round($log->clock->durationS(), 6),
            round($log->clock->rateHz, 3),
            $log->clock->samples,
            array_map(
                static fn (TimeFault $g): array => ['at_s' => round($g->atS, 6), 'length_s' => round($g->lengthS, 6)],
                $log->clock->gaps(),
            ),
            \count(
                array_filter(
                    $log->clock->faults,
                    static fn (TimeFault $f): bool => \in_array($f->kind, [TimeFaultKind::Back, TimeFaultKind::Repeat], true),
                ),
            ),
            $log->badRows,
            $log->logged(),
            $log->leftOut,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'duration_s' => $this->durationS,
            'sample_rate_hz' => $this->rateHz,
            'samples' => $this->samples,
            'gaps' => $this->gaps,
            'time_faults' => $this->timeFaults,
            'bad_rows' => $this->badRows->toArray(),
            'traces' => $this->traces,
            'columns_left_out' => $this->leftOut,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self(
            $data->number('duration_s'),
            $data->number('sample_rate_hz'),
            $data->whole('samples'),
            array_map(
                static fn (Stored $g): array => ['at_s' => $g->number('at_s'), 'length_s' => $g->number('length_s')],
                $data->rows('gaps'),
            ),
            $data->whole('time_faults'),
            BadRows::fromArray($data->part('bad_rows')),
            $data->texts('traces'),
            $data->texts('columns_left_out'),
        );
    }
}
