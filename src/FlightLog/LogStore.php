<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\DerivedTrace;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;

/**
 * Samples in the database: float32 chunks per trace, and above them a pyramid of least and greatest.
 *
 * Level 0 is the samples; a bucket of level k covers 4^k samples and is two floats, least then greatest. Any view
 * reads one level, chosen so that it has at most 2000 buckets.
 */
final readonly class LogStore
{
    public const FACTOR = 4;
    public const MOST_BUCKETS = 2000;
    private const CHUNK_VALUES = 16384;

    /** Samples read for one view of a derived trace: about half a second's work. */
    private const MOST_DERIVED = 6_000_000;

    public function __construct(private Connection $db)
    {
    }

    public function save(int $logId, FlightLog $log): void
    {
        $insert = $this->db->prepare('INSERT INTO log_chunk (log_id, trace, level, part, data) VALUES (?, ?, ?, ?, ?)');
        $put = static function (string $trace, int $level, string $bytes, int $part) use ($insert, $logId): void {
            $insert->bindValue(1, $logId, ParameterType::INTEGER);
            $insert->bindValue(2, $trace);
            $insert->bindValue(3, $level, ParameterType::INTEGER);
            $insert->bindValue(4, $part, ParameterType::INTEGER);
            $insert->bindValue(5, $bytes, ParameterType::LARGE_OBJECT);
            $insert->executeStatement();
        };
        foreach ($log->names() as $trace) {
            $column = $log->column($trace);
            for ($part = 0, $from = 0; $from < $column->count; ++$part, $from += self::CHUNK_VALUES) {
                $put($trace, 0, $column->bytes($from, self::CHUNK_VALUES), $part);
            }
            // The first level is drawn chunk by chunk, so that a long trace is never held whole; those above are small.
            $low = $high = [];
            for ($from = 0; $from < $column->count && $column->count > self::MOST_BUCKETS; $from += self::CHUNK_VALUES) {
                $values = $column->values($from, self::CHUNK_VALUES);
                [$l, $h] = self::coarser($values, $values);
                array_push($low, ...$l);
                array_push($high, ...$h);
            }
            for ($level = 1; [] !== $low; ++$level) {
                $pairs = [];
                foreach ($low as $i => $v) {
                    $pairs[] = $v;
                    $pairs[] = $high[$i];
                }
                foreach (str_split(FlightLog::packFloats($pairs), 4 * self::CHUNK_VALUES) as $part => $bytes) {
                    $put($trace, $level, $bytes, $part);
                }
                if (\count($low) <= self::MOST_BUCKETS) {
                    break;
                }
                [$low, $high] = self::coarser($low, $high);
            }
        }
    }

    /**
     * The samples or buckets that a view needs.
     *
     * @param list<string> $traces
     *
     * @return array{level: int, first: int, count: int, data: list<string>} buckets of the level, and one packed string per trace
     */
    public function view(int $logId, array $traces, int $fromSample, int $toSample): array
    {
        $level = 0;
        $size = 1;
        while (($toSample - $fromSample) / $size > self::MOST_BUCKETS) {
            $size *= self::FACTOR;
            ++$level;
        }
        $first = intdiv($fromSample, $size);
        $last = intdiv(max($fromSample, $toSample - 1), $size);
        $values = 0 === $level ? 1 : 2;
        $perChunk = intdiv(self::CHUNK_VALUES, $values);
        $data = [];
        $count = $last - $first + 1;
        foreach ($traces as $trace) {
            $bytes = $this->chunks($logId, $trace, $level, intdiv($first, $perChunk), intdiv($last, $perChunk));
            $bytes = substr($bytes, ($first % $perChunk) * 4 * $values, $count * 4 * $values);
            $count = min($count, intdiv(\strlen($bytes), 4 * $values));
            $data[] = $bytes;
        }

        return [
            'level' => $level,
            'first' => $first,
            'count' => $count,
            'data' => array_map(static fn (string $b): string => substr($b, 0, $count * 4 * $values), $data),
        ];
    }

    /**
     * The same of a trace that follows from others: its own least and greatest, reckoned from the samples.
     *
     * @return string|null packed as those of view(); null where the view covers more samples than are read for one picture
     */
    public function derived(int $logId, DerivedTrace $trace, int $level, int $first, int $count): ?string
    {
        $size = max(1, (int) self::FACTOR ** $level);
        if ($count * $size * \count($trace->weights) > self::MOST_DERIVED) {
            return null;
        }
        // A whole number of buckets at a time, so that a long one is never held whole.
        $step = max(1, intdiv(self::CHUNK_VALUES, $size));
        $out = '';
        for ($from = $first; $from < $first + $count; $from += $step) {
            $many = min($step, $first + $count - $from) * $size;
            $parts = [];
            foreach (array_keys($trace->weights) as $name) {
                $parts[$name] = $this->samples($logId, $name, $from * $size, $many);
            }
            $values = $trace->of($parts);
            if (0 === $level) {
                $out .= FlightLog::packFloats($values);
                continue;
            }
            $pairs = [];
            foreach (array_chunk($values, $size) as $bucket) {
                array_push($pairs, min($bucket), max($bucket));
            }
            $out .= FlightLog::packFloats($pairs);
        }

        return $out;
    }

    /** @return list<float> some samples of one trace, fewer where it ends */
    public function samples(int $logId, string $trace, int $first, int $count): array
    {
        $part = intdiv($first, self::CHUNK_VALUES);
        $bytes = $this->chunks($logId, $trace, 0, $part, intdiv($first + $count, self::CHUNK_VALUES));

        return FlightLog::unpackFloats(substr($bytes, 4 * ($first - $part * self::CHUNK_VALUES), 4 * $count));
    }

    /**
     * Turns the sign of some traces about, samples and pyramid.
     *
     * @param list<string> $traces
     */
    public function turn(int $logId, array $traces): void
    {
        foreach ($traces as $trace) {
            foreach (
                $this->db->fetchAllAssociative('SELECT level, part FROM log_chunk WHERE log_id = ? AND trace = ?', [$logId, $trace]) as $row
            ) {
                [$level, $part] = [is_numeric($row['level']) ? (int) $row['level'] : 0, is_numeric($row['part']) ? (int) $row['part'] : 0];
                $values = array_map(
                    static fn (float $v): float => -$v,
                    FlightLog::unpackFloats($this->chunks($logId, $trace, $level, $part, $part)),
                );
                if ($level > 0) {
                    // Pairs of least and greatest: turned about, they change places.
                    for ($i = 0, $n = \count($values) - 1; $i < $n; $i += 2) {
                        [$values[$i], $values[$i + 1]] = [$values[$i + 1], $values[$i]];
                    }
                }
                $this->db->executeStatement(
                    'UPDATE log_chunk SET data = ? WHERE log_id = ? AND trace = ? AND level = ? AND part = ?',
                    [FlightLog::packFloats(array_values($values)), $logId, $trace, $level, $part],
                    [ParameterType::LARGE_OBJECT],
                );
            }
        }
    }

    private function chunks(int $logId, string $trace, int $level, int $from, int $to): string
    {
        $rows = $this->db->fetchFirstColumn(
            'SELECT data FROM log_chunk WHERE log_id = ? AND trace = ? AND level = ? AND part BETWEEN ? AND ? ORDER BY part',
            [$logId, $trace, $level, $from, $to],
        );

        return implode(
            '',
            array_map(
                static fn (mixed $r): string => \is_resource($r) ? (string) stream_get_contents($r) : (\is_string($r) ? $r : ''),
                $rows,
            ),
        );
    }

    /**
     * Refuses what is not all there any more, before anything of it is sent on.
     *
     * @throws ConflictHttpException naming the traces
     */
    public function demandWhole(Log $log): void
    {
        $bytes = $this->db->fetchAllKeyValue(
            'SELECT trace, SUM(LENGTH(data)) FROM log_chunk WHERE log_id = ? AND level = 0 GROUP BY trace',
            [$log->id],
        );
        $broken = array_filter($log->traces, static fn (string $t): bool => (string) (4 * $log->samples) !== self::text($bytes[$t] ?? 0));
        if ([] !== $broken) {
            throw self::broken($log, array_values($broken));
        }
    }

    private static function text(mixed $value): string
    {
        return \is_scalar($value) ? (string) $value : '';
    }

    /** @param list<string> $traces */
    private static function broken(Log $log, array $traces): ConflictHttpException
    {
        return new ConflictHttpException(
            "Of $log->code, ".implode(', ', $traces).' cannot be read whole any more. Bring in the file of the log once more, '.
                'or a backup of the data folder; what is left of it is left as it is.',
        );
    }

    /**
     * @param list<string>|null $only traces to load; all when null
     *
     * @throws ConflictHttpException where something of it is missing
     * @throws LogError where there is no room for it
     */
    public function load(Log $log, ?array $only = null): FlightLog
    {
        $columns = [];
        foreach ($only ?? $log->traces as $trace) {
            if (\in_array($trace, $log->traces, true)) {
                $columns[$trace] = Column::ofBytes($this->chunks((int) $log->id, $trace, 0, 0, \PHP_INT_MAX));
                if ($columns[$trace]->count !== $log->samples) {
                    throw self::broken($log, [$trace]);
                }
            }
        }

        return new FlightLog($log->clock(), $columns, $log->head, $log->badRows());
    }

    /**
     * @param list<float> $low
     * @param list<float> $high
     *
     * @return array{list<float>, list<float>}
     */
    private static function coarser(array $low, array $high): array
    {
        $l = $h = [];
        for ($i = 0, $n = \count($low); $i < $n; $i += self::FACTOR) {
            $a = $low[$i];
            $b = $high[$i];
            for ($j = $i + 1, $end = min($n, $i + self::FACTOR); $j < $end; ++$j) {
                if ($low[$j] < $a) {
                    $a = $low[$j];
                }
                if ($high[$j] > $b) {
                    $b = $high[$j];
                }
            }
            $l[] = $a;
            $h[] = $b;
        }

        return [$l, $h];
    }
}
