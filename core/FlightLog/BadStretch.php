<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;

/** Rows one after the other that could not be read for one reason. */
final readonly class BadStretch
{
    /**
     * @param int  $line   of the first, from 1
     * @param Fact $reason of BadRowReason
     */
    public function __construct(public int $line, public int $count, public Fact $reason)
    {
    }

    /** The same with more rows, where they follow on for the same reason. */
    public function with(int $line, Fact $reason, int $count = 1): ?self
    {
        return $this->line + $this->count === $line && $this->reason->toArray() === $reason->toArray()
            ? new self($this->line, $this->count + $count, $this->reason)
            : null;
    }

    /** @return array{line: int, count: int, reason: array<string, mixed>} */
    public function toArray(): array
    {
        return ['line' => $this->line, 'count' => $this->count, 'reason' => $this->reason->toArray()];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->whole('line'), $data->whole('count'), Fact::fromArray($data->part('reason'), BadRowReason::class));
    }
}
