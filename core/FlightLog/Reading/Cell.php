<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

/** What a number is, in any cell of any log: a decimal figure that a float32 can hold. */
final readonly class Cell
{
    /** The greatest float32. */
    private const GREATEST = 3.402_823_466_385_288_6e38;

    /** Null where it is none: a word, nothing, or more than can be kept. */
    public static function number(string $cell): ?float
    {
        return is_numeric($cell) && self::fits((float) $cell) ? (float) $cell : null;
    }

    /**
     * @param list<string> $cells
     *
     * @return list<float> 0 where it is none
     */
    public static function numbers(array $cells): array
    {
        $numbers = array_map(floatval(...), $cells);
        $isPlain = \count(array_filter($cells, is_numeric(...))) === \count($cells);

        // Of a row of figures, which most are, that is all there is to do.
        return $isPlain && self::fits(max([0.0, ...$numbers])) && self::fits(min([0.0, ...$numbers]))
            ? $numbers
            : array_map(static fn (string $cell): float => self::number($cell) ?? 0.0, $cells);
    }

    public static function fits(float|int $value): bool
    {
        return abs($value) <= self::GREATEST;
    }

    /**
     * Whether among numbers packed as float32, little-endian, there may be one that did not fit: the last two bytes of infinity, and of the
     * greatest that is kept. Quicker than to look at each; where it says so, each must be.
     */
    public static function mayNotFit(string $packed): bool
    {
        return str_contains($packed, "\x80\x7F")
            || str_contains($packed, "\x80\xFF")
            || str_contains($packed, "\x7F\x7F")
            || str_contains($packed, "\x7F\xFF");
    }
}
