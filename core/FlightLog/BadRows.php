<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\Fact\Stored;

/** Rows that could not be read: how many, and where the first stretches of them lie. */
final readonly class BadRows
{
    /** @param list<BadStretch> $places */
    public function __construct(public int $count, public array $places)
    {
    }

    /** @return array{count: int, places: list<array{line: int, count: int, reason: array<string, mixed>}>} */
    public function toArray(): array
    {
        return ['count' => $this->count, 'places' => array_map(static fn (BadStretch $s): array => $s->toArray(), $this->places)];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self($data->whole('count'), array_map(BadStretch::fromArray(...), $data->rows('places')));
    }
}
