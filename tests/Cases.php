<?php

declare(strict_types=1);

namespace Ortholex\Tests;

/**
 * How many of many like cases a test takes: some at each run, so that the whole suite ends in time, and all with `bin/test whole`.
 */
final class Cases
{
    private function __construct()
    {
    }

    public static function all(): bool
    {
        return '1' === getenv('ORTHOLEX_WHOLE');
    }

    public static function many(int $all, int $some): int
    {
        return self::all() ? $all : $some;
    }

    /** Whether the case with this number is one of every so many that are taken. */
    public static function takes(int $number, int $every): bool
    {
        return self::all() || 0 === $number % $every;
    }
}
