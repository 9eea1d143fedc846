<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\FlightLog\Columns\ColumnName;
use Ortholex\Core\FlightLog\Columns\ColumnRule;
use Ortholex\Core\FlightLog\Columns\Vocabulary;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;

/**
 * Matches the column names of any CSV to canonical traces, by the words in them.
 *
 * A name is cut into words (at case changes, digits and marks). Words say the quantity, the axis or motor, and how it
 * was filtered; what no word explains lowers the score. Each trace is given once, to the best of its columns.
 */
final readonly class ColumnMatcher
{
    /**
     * @param list<string> $header
     * @param array<string, string|null> $given trace (or null for none) by column name: what was answered or ordered
     *
     * @return list<ColumnGuess> one per column
     *
     * @throws LogError when an order names a column or trace there is not
     */
    public static function of(array $header, array $given = []): array
    {
        foreach ($given as $name => $trace) {
            if (!\in_array($name, $header, true)) {
                throw LogError::noColumn($name, $trace, $header);
            }
            if (null !== $trace && Traces::TIME !== $trace && null === Traces::unitOf($trace)) {
                throw LogError::unknownTrace($trace);
            }
        }
        $candidates = [];
        $words = array_merge(...array_map(ColumnName::words(...), $header));
        $letters = [] === array_diff(array_keys(Vocabulary::LETTERS), $words);
        $firsts = self::firstNumbers($header);
        foreach ($header as $column => $name) {
            $candidates[$column] = \array_key_exists($name, $given)
                ? [[$given[$name], 1.0]]
                : self::candidates($name, $letters, $firsts[self::stem($name)] ?? 0);
        }
        $candidates = self::settled($candidates);
        // Best first: a trace goes to the column that fits it best; the others fall back on their next.
        $ranked = [];
        foreach ($candidates as $column => $list) {
            foreach ($list as [$trace, $score]) {
                $ranked[] = [$score, -$column, $column, $trace];
            }
        }
        rsort($ranked);
        $taken = $chosen = [];
        foreach ($ranked as [$score, , $column, $trace]) {
            if (isset($chosen[$column]) || (null !== $trace && isset($taken[$trace]))) {
                continue;
            }
            $chosen[$column] = new ColumnGuess($column, $header[$column], $trace, $score);
            if (null !== $trace) {
                $taken[$trace] = true;
            }
        }
        $guesses = [];
        foreach ($header as $column => $name) {
            $guesses[] = $chosen[$column] ?? new ColumnGuess($column, $name, null, 0.0);
        }

        return $guesses;
    }

    /**
     * Whether columns that differ by a number alone count from 0 or from 1.
     *
     * @param list<string> $header
     *
     * @return array<string, int> by the name without its number
     */
    private static function firstNumbers(array $header): array
    {
        $numbers = [];
        foreach ($header as $name) {
            if (1 === preg_match('~(\d+)\D*$~', ColumnName::bare($name), $m)) {
                $numbers[self::stem($name)][] = (int) $m[1];
            }
        }

        return array_map(static fn (array $n): int => \count($n) >= 3 && 1 === min($n) ? 1 : 0, $numbers);
    }

    private static function stem(string $name): string
    {
        return (string) preg_replace('~\d+(?=\D*$)~', '', ColumnName::bare($name));
    }

    /** @return list<array{string|null, float}> traces a name may mean, with scores */
    private static function candidates(string $name, bool $letters, int $first): array
    {
        if (Traces::TIME === $name || null !== Traces::unitOf($name)) {
            return [[$name, 1.0]];
        }

        return ColumnRule::read(ColumnName::of($name, $letters, $first));
    }

    /**
     * Where a log has one set of rates marked as filtered or raw, the unmarked set is the other; alone it is the measured one.
     *
     * @param array<int, list<array{string|null, float}>> $candidates
     *
     * @return array<int, list<array{string|null, float}>>
     */
    private static function settled(array $candidates): array
    {
        $marked = ['measured' => false, 'filtered' => false];
        foreach ($candidates as $list) {
            foreach ($list as [$trace, $score]) {
                foreach (['measured', 'filtered'] as $kind) {
                    $marked[$kind] = $marked[$kind] || ($score >= 0.85 && null !== $trace && str_starts_with($trace, "rate_$kind"));
                }
            }
        }
        if (!$marked['measured']) {
            return $candidates;
        }
        foreach ($candidates as $column => $list) {
            foreach ($list as $i => [$trace, $score]) {
                // Unmarked beside a raw one: it is what the controller saw.
                if (null !== $trace && str_starts_with($trace, 'rate_filtered') && $score > 0.5 && $score < 0.85) {
                    $candidates[$column][$i] = [$trace, 0.88];
                }
            }
        }

        return $candidates;
    }
}
