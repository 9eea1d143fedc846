<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Recording;

use Ortholex\Bench\Recorder\RecorderMemory;
use Ortholex\Core\Recorder\RecordPages;

/** Writes a flight into the memory on the board, page by page, until that is full; the flight goes on without it. */
final class MemoryRecorder implements FlightRecorder
{
    private ?RecordPages $pages = null;

    /** @var list<list<float|int>> */
    private array $rows = [];

    private int $perPage = 1;
    private bool $full = false;

    /** Which recording it is; null before anything was kept. */
    public ?int $number = null;

    public function __construct(private readonly RecorderMemory $memory, private readonly string $head)
    {
    }

    public function begin(array $names, float $rateHz): void
    {
        $this->pages = new RecordPages($rateHz, $names, $this->head);
        $this->perPage = RecordPages::samples($rateHz);
    }

    public function record(array $row): bool
    {
        $this->rows[] = $row;
        if (\count($this->rows) < $this->perPage) {
            return false;
        }
        $this->finish();

        return true;
    }

    /** Whether it ended before the flight did. */
    public function isFull(): bool
    {
        return $this->full;
    }

    public function finish(): void
    {
        $rows = $this->rows;
        $this->rows = [];
        if ([] === $rows || null === $this->pages || $this->full) {
            return;
        }
        $columns = [];
        for ($i = 1, $n = \count($rows[0]); $i < $n; ++$i) {
            $columns[] = array_map(floatval(...), array_column($rows, $i));
        }
        $page = $this->pages->next((float) $rows[0][0], $columns);
        $this->number ??= $this->memory->begin();
        $this->full = !$this->memory->append($this->number, $page);
    }
}
