<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** Rows that could not be read: how many, and where the first stretches of them lie. */
final readonly class BadRows
{
    /** @param list<array{line: int, count: int, reason: string}> $places */
    public function __construct(public int $count, public array $places)
    {
    }
}
