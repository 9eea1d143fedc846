<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Clock;

use Ortholex\Core\FlightLog\Column;

/** Walks a column of times in pieces, however long it is. */
final readonly class Stretches
{
    /** Rows looked at in one go. */
    public const ROWS = 16384;

    /**
     * @param list<array{int, int}> $ranges of rows, first and last
     *
     * @return \Generator<array{int, list<float>}> stretches of times, each with its first row
     */
    public static function of(Column $times, array $ranges): \Generator
    {
        foreach ($ranges as [$first, $last]) {
            for ($row = $first; $row <= $last; $row += self::ROWS) {
                yield [$row, $times->values($row, min(self::ROWS, $last - $row + 1))];
            }
        }
    }
}
