<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio;

use Ortholex\Core\Radio\Span\StickHistory;
use Ortholex\Core\Radio\Wire\Edges;

/** Captures as CSV, plain or gzip: changes of a wire, or channels over time. Comments begin with #; columns stand in any order. */
final readonly class CaptureFile
{
    private const LONGEST_LINE = 8192;

    /** @throws RadioFileError */
    public static function edges(string $path): Edges
    {
        $times = $levels = [];
        $before = -\INF;
        foreach (self::rows($path, ['time_us', 'level'], true) as $line => $row) {
            if (!\in_array($row['level'], [0.0, 1.0], true)) {
                throw RadioFileError::level($line, (string) $row['level']);
            }
            if ($row['time_us'] < $before) {
                throw RadioFileError::backwards($line, $before, $row['time_us']);
            }
            $times[] = $before = $row['time_us'];
            $levels[] = (int) $row['level'];
        }
        // An analyser may write the level that it finds at the start as its first row: taken for a change to rest, it begins nothing.

        return Edges::of($times, $levels);
    }

    /** @throws RadioFileError */
    public static function sticks(string $path): StickHistory
    {
        $times = $channels = [];
        $before = -\INF;
        foreach (self::rows($path, ['time_s']) as $line => $row) {
            if ($row['time_s'] < $before) {
                throw RadioFileError::backwards($line, $before, $row['time_s']);
            }
            $times[] = $before = $row['time_s'];
            foreach ($row as $name => $value) {
                if (1 === preg_match('~^ch(\d{1,2})_us$~', $name, $m)) {
                    $channels[(int) $m[1]][] = $value;
                }
            }
        }
        if ([] === $channels) {
            throw RadioFileError::noHeader($path, ['time_s', 'ch1_us', '…']);
        }
        ksort($channels);

        return new StickHistory($times, $channels);
    }

    /**
     * @param list<string> $wanted columns that there must be
     * @param bool         $still  whether it may hold no row: a wire on which nothing changed
     *
     * @return iterable<int, array<string, float>> by line
     *
     * @throws RadioFileError
     */
    private static function rows(string $path, array $wanted, bool $still = false): iterable
    {
        $file = is_file($path) ? @gzopen($path, 'r') : false;
        if (false === $file) {
            throw RadioFileError::noFile($path);
        }
        try {
            $header = null;
            $rows = 0;
            for ($line = 1; false !== ($text = @gzgets($file, self::LONGEST_LINE)); ++$line) {
                if (1 === preg_match('~[\x00-\x08\x0E-\x1F]~', $text)) {
                    throw RadioFileError::binary($line);
                }
                $text = trim(1 === $line ? preg_replace('~^\xEF\xBB\xBF~', '', $text) ?? $text : $text);
                if ('' === $text || '#' === $text[0]) {
                    continue;
                }
                $cells = array_map(static fn (string $c): string => trim($c, " \t\""), preg_split('~[,;\t]~', $text) ?: []);
                if (null === $header) {
                    $header = array_map('strtolower', $cells);
                    if ([] !== array_diff($wanted, $header)) {
                        throw RadioFileError::noHeader($path, $wanted);
                    }
                    continue;
                }
                ++$rows;
                yield $line => self::row($header, $cells, $line);
            }
            if (!gzeof($file)) {
                throw RadioFileError::torn($path);
            }
            if (null === $header) {
                throw RadioFileError::noHeader($path, $wanted);
            }
            if (0 === $rows && !$still) {
                throw RadioFileError::noRows($path);
            }
        } finally {
            gzclose($file);
        }
    }

    /**
     * @param list<string> $header
     * @param list<string> $cells
     *
     * @return array<string, float>
     */
    private static function row(array $header, array $cells, int $line): array
    {
        $row = [];
        foreach ($header as $i => $name) {
            $cell = $cells[$i] ?? '';
            if (!is_numeric($cell) || !is_finite((float) $cell)) {
                throw RadioFileError::notANumber($line, $name, $cell);
            }
            $row[$name] = (float) $cell;
        }

        return $row;
    }
}
