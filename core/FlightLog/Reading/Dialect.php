<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\FlightLog\LogError;

/** The manner a CSV is written in, found from its beginning: delimiter, decimal mark, where the header stands. */
final readonly class Dialect
{
    private const DELIMITERS = [',', ';', "\t", '|'];

    /** Share of a header's cells that may be numbers or empty, and of a row's that must be numbers. */
    private const MOST_NUMBERS = 0.3;

    private const LEAST_NUMBERS = 0.7;
    public const MOST_COLUMNS = 400;

    /**
     * @param non-empty-string $delimiter
     * @param int          $headerLine  its number, from 1
     * @param list<string> $header      names as they stand, without quotes
     * @param list<string> $units       of a row of units below the header; empty when there is none
     * @param string       $head        lines ahead of the header, without comment marks
     */
    private function __construct(
        public string $delimiter,
        public bool $decimalComma,
        public int $headerLine,
        public array $header,
        public array $units,
        public string $head,
    ) {
    }

    /**
     * @param string $start the first part of the file, whole lines
     *
     * @throws LogError when no header is found: it says which line was looked at last, and why
     */
    public static function of(string $start): self
    {
        if (str_starts_with($start, "\xEF\xBB\xBF")) {
            $start = substr($start, 3);
        }
        $lines = explode("\n", str_replace(["\r\n", "\r"], "\n", $start));
        if ('' === trim($start)) {
            throw LogError::empty();
        }
        foreach (\array_slice($lines, 0, 20) as $i => $line) {
            if (1 === preg_match('~[\x00-\x08\x0E-\x1F]~', $line)) {
                throw LogError::binary($i + 1);
            }
        }
        $head = '';
        foreach ($lines as $i => $line) {
            if ('' === trim($line)) {
                continue;
            }
            if ('#' === $line[0] && !self::isHeaderBehindMark($lines, $i)) {
                $head .= (string) preg_replace('~^# ?~', '', $line)."\n";
                continue;
            }
            $found = self::headerAt($lines, $i);
            if (null !== $found) {
                [$delimiter, $comma, $names, $units] = $found;
                [$names, $units] = [array_map(self::readable(...), $names), array_map(self::readable(...), $units)];

                return new self($delimiter, $comma, $i + 1, $names, $units, self::readable($head));
            }
            // A log of someone else's may tell of itself ahead of its header; that is kept as it stands.
            $head .= rtrim($line)."\n";
            if ($i > 400) {
                break;
            }
        }
        throw LogError::noHeader();
    }

    /**
     * A block of lines as the plain manner has it: comma between cells, point in numbers, no quotes.
     */
    public function plain(string $data): string
    {
        if (str_contains($data, "\r")) {
            $data = str_replace(["\r\n", "\r"], ["\n", ''], $data);
        }
        if (str_contains($data, '"')) {
            if (',' === $this->delimiter) {
                // A decimal comma hidden in quotes.
                $data = (string) preg_replace('~"(-?\d+),(\d+)"~', '$1.$2', $data);
            }
            $data = str_replace('"', '', $data);
        }
        if ($this->decimalComma) {
            $data = str_replace(',', '.', $data);
        }

        return ',' === $this->delimiter ? $data : str_replace($this->delimiter, ',', $data);
    }

    /** What is no UTF-8, as in files of an older manner, is marked as such: names are told again, in reports and in the book. */
    private static function readable(string $text): string
    {
        return mb_scrub($text, 'UTF-8');
    }

    /** @return list<string> as they stand in a line of the file */
    public function cellsOf(string $line): array
    {
        return self::cells($line, '' === $this->delimiter ? ',' : $this->delimiter);
    }

    /**
     * @param list<string> $lines
     *
     * @return array{non-empty-string, bool, list<string>, list<string>}|null delimiter, decimal comma, names, units
     */
    private static function headerAt(array $lines, int $at): ?array
    {
        $line = '#' === $lines[$at][0] ? ltrim(substr($lines[$at], 1)) : $lines[$at];
        $below = [];
        foreach (\array_slice($lines, $at + 1, 8) as $text) {
            if ('' !== trim($text) && '#' !== $text[0]) {
                $below[] = $text;
            }
        }
        $best = null;
        foreach (self::DELIMITERS as $delimiter) {
            $names = self::cells($line, $delimiter);
            if (self::couldBeNames($names) && \count($names) >= \count($best[2] ?? [])) {
                $best = self::over($below, $delimiter, $names) ?? $best;
            }
        }
        $best ??= self::byTimeAlone($line);
        if (null !== $best && \count($best[2]) > self::MOST_COLUMNS) {
            throw LogError::tooManyColumns($at + 1, \count($best[2]), self::MOST_COLUMNS);
        }

        return $best;
    }

    /** @param list<string> $names */
    private static function couldBeNames(array $names): bool
    {
        $n = \count($names);

        return $n >= 2
            && \count(array_filter($names, 'is_numeric')) <= self::MOST_NUMBERS * $n
            && \count(array_filter($names, static fn (string $c): bool => '' === $c)) <= self::MOST_NUMBERS * $n;
    }

    /**
     * Names over rows that have as many cells, nearly all of them numbers.
     *
     * @param list<string>     $below
     * @param non-empty-string $delimiter
     * @param list<string>     $names
     *
     * @return array{non-empty-string, bool, list<string>, list<string>}|null
     */
    private static function over(array $below, string $delimiter, array $names): ?array
    {
        $n = \count($names);
        foreach ($below as $b => $text) {
            $cells = self::cells($text, $delimiter);
            if (\count($cells) !== $n) {
                continue;
            }
            $comma = ',' !== $delimiter && [] !== preg_grep('~^-?\d+,\d+$~', $cells);
            $numeric = array_filter(
                $cells,
                static fn (string $c): bool => is_numeric($comma ? str_replace(',', '.', $c) : $c)
                    || '' === $c
                    || 0 === strcasecmp($c, 'nan'),
            );
            if (\count($numeric) >= self::LEAST_NUMBERS * $n) {
                return [
                    $delimiter,
                    $comma || self::usesComma($below, $delimiter),
                    $names,
                    0 === $b ? [] : self::unitsIn($below[0], $delimiter, $n),
                ];
            }
        }

        return null;
    }

    /**
     * Where no row can be read, a header with our time column still is one.
     *
     * @return array{non-empty-string, bool, list<string>, list<string>}|null
     */
    private static function byTimeAlone(string $line): ?array
    {
        foreach (self::DELIMITERS as $delimiter) {
            $names = self::cells($line, $delimiter);
            if (\count($names) >= 2 && [] !== preg_grep('~^time(_s|_ms|_us)?$~i', $names)) {
                return [$delimiter, false, $names, []];
            }
        }

        return null;
    }

    /**
     * @param list<string>     $lines
     * @param non-empty-string $delimiter
     */
    private static function usesComma(array $lines, string $delimiter): bool
    {
        foreach (',' === $delimiter ? [] : $lines as $line) {
            if ([] !== preg_grep('~^-?\d+,\d+$~', self::cells($line, $delimiter))) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param non-empty-string $delimiter
     *
     * @return list<string>
     */
    private static function unitsIn(string $line, string $delimiter, int $count): array
    {
        $cells = self::cells($line, $delimiter);

        return \count($cells) === $count ? array_map(static fn (string $c): string => trim($c, '[]() '), $cells) : [];
    }

    /**
     * @param non-empty-string $delimiter
     *
     * @return list<string>
     */
    private static function cells(string $line, string $delimiter): array
    {
        // A delimiter within quotes belongs to the name.
        $cells = str_contains($line, '"') ? array_map('strval', str_getcsv($line, $delimiter, '"', '')) : explode($delimiter, $line);

        return array_map(static fn (string $c): string => trim($c, " \t\"'\r"), $cells);
    }

    /**
     * Some writers put a comment mark before the names themselves.
     *
     * @param list<string> $lines
     */
    private static function isHeaderBehindMark(array $lines, int $at): bool
    {
        $next = $lines[$at + 1] ?? '';

        return '' !== $next
            && '#' !== $next[0]
            && !str_contains($lines[$at], ': ')
            && null !== self::headerAt($lines, $at)
            && 1 === preg_match('~^["\s]*-?[\d.]~', $next);
    }
}
