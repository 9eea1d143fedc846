<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\FlightLog\Units\UnitGuess;
use Ortholex\Core\Signal\Statistics;

/**
 * How a file is to be read: its manner, what each column is taken for, and in which unit it is.
 *
 * Drawn from a look at its beginning and at pieces from all over it; shown to the user, who can overrule it.
 */
final readonly class LogPlan
{
    private const START_BYTES = 131072;
    private const PIECE_BYTES = 32768;
    private const PIECES = 12;
    private const PREVIEW_ROWS = 5;

    /** Rows that a column must grow over, to be taken for the time. */
    private const LEAST_ROWS = 20;

    private const SURE_OTHERWISE = 0.9;

    /**
     * @param list<ColumnGuess>        $guesses
     * @param array<string, UnitGuess> $units   by trace
     * @param list<list<string>>       $preview first rows, cell by cell
     * @param list<RateFollows>        $follows
     * @param array<string, float>     $fastest what 99.5 % of the rotation stays under, deg/s, as it is read; by axis
     * @param (\Closure(string): bool)|null $isLookedAt which traces are kept; all when null
     */
    private function __construct(
        public Dialect $dialect,
        public array $guesses,
        public array $units,
        public array $preview,
        public array $follows,
        public array $fastest,
        private ?\Closure $isLookedAt = null,
    ) {
    }

    /**
     * @param array<string, string|null> $map    trace (or null for none) by column name, over whatever is guessed; with a unit behind a
     *                                           colon, as in “rate_measured_roll_dps:rad/s”
     * @param list<string>               $places of the motors in the order of their columns; empty when not known
     *
     * @throws LogError when it is no log
     */
    public static function of(string $path, array $map = [], array $places = []): self
    {
        [$map, $given] = self::unitsOf($map);
        [$start, $pieces] = self::look($path);
        $dialect = Dialect::of($start);
        $named = array_map(
            static fn (string $name, string $unit): string => '' === $unit ? $name : "$name [$unit]",
            $dialect->header,
            [] === $dialect->units ? array_fill(0, \count($dialect->header), '') : $dialect->units,
        );
        $guesses = self::numbered(ColumnMatcher::of($dialect->header, $map), $places, array_keys($map));
        $beginning = self::rows($dialect, $start, []);
        $rows = [...$beginning, ...self::rows($dialect, '', $pieces)];
        $guesses = self::timed($guesses, $dialect, $start, array_keys($map));
        $units = self::ordered($given, self::units($guesses, $named, $rows, $beginning));
        $units = RateScale::settled($guesses, $rows, $units, [...array_keys($given), ...self::canonical($guesses)]);
        // What somebody answered needs no asking again.
        $guesses = array_map(
            static fn (ColumnGuess $g): ColumnGuess => $g->inUnit(
                null === $g->trace || \array_key_exists($g->name, $map) || ($units[$g->trace] ?? null)?->sure !== false,
            ),
            $guesses,
        );
        $preview = [];
        foreach (\array_slice(explode("\n", str_replace("\r", '', $start)), $dialect->headerLine) as $line) {
            if ('' !== trim($line) && \count($preview) < self::PREVIEW_ROWS) {
                $preview[] = $dialect->cellsOf($line);
            }
        }

        return new self(
            $dialect,
            $guesses,
            $units,
            $preview,
            RateFollows::of($guesses, $units, $rows),
            self::fastest($guesses, $units, $rows),
        );
    }

    /**
     * @param list<ColumnGuess>        $guesses
     * @param array<string, UnitGuess> $units   by trace
     * @param list<list<float>>        $rows    from all over
     *
     * @return array<string, float> deg/s, by axis
     */
    private static function fastest(array $guesses, array $units, array $rows): array
    {
        $columns = array_column(array_filter($guesses, static fn (ColumnGuess $g): bool => null !== $g->trace), 'column', 'trace');
        $fastest = [];
        foreach (Axis::cases() as $axis) {
            $rate = Traces::rateOfRotation(array_keys($columns), $axis);
            $values = null === $rate ? [] : array_map(abs(...), array_column($rows, $columns[$rate]));
            if ([] !== $values) {
                $fastest[$axis->value] = $units[$rate]->inOurs(Statistics::quantile($values, 0.995));
            }
        }

        return $fastest;
    }

    /**
     * Units by name or by range.
     *
     * @param list<ColumnGuess> $guesses
     * @param list<string>      $named     names of the columns with their units
     * @param list<list<float>> $rows      from all over
     * @param list<list<float>> $beginning one after the other
     *
     * @return array<string, UnitGuess> by trace
     */
    private static function units(array $guesses, array $named, array $rows, array $beginning): array
    {
        $units = [];
        $rates = [];
        foreach ($guesses as $g) {
            if (null !== $g->trace && 'deg/s' === Traces::unitOf($g->trace)) {
                $kind = str_starts_with($g->trace, 'setpoint') ? 'setpoint' : 'rate';
                foreach (array_column($rows, $g->column) as $v) {
                    $rates[$kind][] = abs($v);
                }
            }
        }
        $turns = array_map(static fn (array $v): float => Statistics::quantile($v, 0.995), $rates);
        foreach ($guesses as $g) {
            if (Traces::TIME === $g->trace) {
                $first = array_column($beginning, $g->column);
                $units[Traces::TIME] = Traces::TIME === $g->name ? UnitGuess::asIs('s') : UnitGuess::time($named[$g->column], $first);
            } elseif (null !== $g->trace) {
                $kind = str_starts_with($g->trace, 'setpoint') ? 'setpoint' : 'rate';
                $units[$g->trace] = UnitGuess::of(
                    $g->trace,
                    $g->trace === $g->name ? $g->name : $named[$g->column],
                    array_column($rows, $g->column),
                    $turns[$kind] ?? null,
                );
            }
        }

        return $units;
    }

    /**
     * @param array<string, string>    $given units by trace
     * @param array<string, UnitGuess> $units
     *
     * @return array<string, UnitGuess>
     *
     * @throws LogError when there is no such unit
     */
    private static function ordered(array $given, array $units): array
    {
        // A trace that was changed in the same form as its unit may have another kind of unit: then that is found anew.
        foreach ($given as $trace => $unit) {
            $chosen = UnitGuess::chosen(Traces::TIME === $trace ? 's' : Traces::unitOf($trace) ?? '', $unit);
            if (null === $chosen && !UnitGuess::isKnown($unit)) {
                throw LogError::unknownUnit($trace, $unit);
            }
            $units[$trace] = $chosen ?? $units[$trace];
        }

        return $units;
    }

    /**
     * @param array<string, string|null> $map
     *
     * @return array{array<string, string|null>, array<string, string>} traces by column, and units by trace
     */
    private static function unitsOf(array $map): array
    {
        $units = [];
        foreach ($map as $column => $trace) {
            $cut = null === $trace ? false : strpos($trace, ':');
            if (null !== $trace && false !== $cut) {
                $units[substr($trace, 0, $cut)] = substr($trace, $cut + 1);
                $map[$column] = substr($trace, 0, $cut);
            }
        }

        return [$map, $units];
    }

    /**
     * @param list<ColumnGuess> $guesses
     *
     * @return list<string> traces whose columns carry our own names, and so our own units
     */
    private static function canonical(array $guesses): array
    {
        $own = array_filter($guesses, static fn (ColumnGuess $g): bool => $g->trace === $g->name);

        return array_values(array_filter(array_column($own, 'trace')));
    }

    /** @return array<string, ColumnGuess> by trace, but for the time: what is read */
    public function traces(): array
    {
        $traces = [];
        foreach ($this->guesses as $guess) {
            if (null !== $guess->trace && Traces::TIME !== $guess->trace) {
                $traces[$guess->trace] = $guess;
            }
        }

        return $traces;
    }

    /**
     * For somebody who looks at some traces only: the others are read and judged all the same, and not kept.
     *
     * @param \Closure(string): bool $isLookedAt by the name of a trace
     */
    public function keeping(\Closure $isLookedAt): self
    {
        return new self($this->dialect, $this->guesses, $this->units, $this->preview, $this->follows, $this->fastest, $isLookedAt);
    }

    public function keeps(string $trace): bool
    {
        return null === $this->isLookedAt || ($this->isLookedAt)($trace);
    }

    public function timeColumn(): ?int
    {
        foreach ($this->guesses as $guess) {
            if (Traces::TIME === $guess->trace) {
                return $guess->column;
            }
        }

        return null;
    }

    /** Whether every column that seems to matter was recognised surely. */
    public function isSure(): bool
    {
        return [] === $this->unsure();
    }

    /** @return list<ColumnGuess> taken for a trace, but not surely */
    public function unsure(): array
    {
        return array_values(array_filter($this->guesses, static fn (ColumnGuess $g): bool => null !== $g->trace && !$g->isSure()));
    }

    /**
     * Where no name says time, a column that only ever grows is taken for it, but not surely.
     *
     * @param list<ColumnGuess> $guesses
     * @param list<string>      $given   columns whose trace was ordered
     *
     * @return list<ColumnGuess>
     */
    private static function timed(array $guesses, Dialect $dialect, string $start, array $given): array
    {
        foreach ($guesses as $g) {
            if (Traces::TIME === $g->trace) {
                return $guesses;
            }
        }
        $rows = self::rows($dialect, $start, []);
        if (\count($rows) < self::LEAST_ROWS) {
            return $guesses;
        }
        foreach ($guesses as $i => $g) {
            if (\in_array($g->name, $given, true) || (null !== $g->trace && $g->score >= self::SURE_OTHERWISE)) {
                continue;
            }
            $v = array_column($rows, $g->column);
            $steps = array_map(static fn (float $a, float $b): float => $b - $a, \array_slice($v, 0, -1), \array_slice($v, 1));
            $middle = Statistics::median($steps);
            // Mostly even steps forward; a counter of samples by ones would be no time, but nobody could tell.
            if (min([0.0, ...$steps]) >= 0 && $middle > 0 && Statistics::quantile($steps, 0.9) < 3 * $middle) {
                $guesses[$i] = new ColumnGuess($g->column, $g->name, Traces::TIME, 0.6);

                return $guesses;
            }
        }

        return $guesses;
    }

    /** Identifies the header, so that an answer is remembered for all its like. */
    public function headerKey(): string
    {
        return hash('sha256', implode("\n", $this->dialect->header));
    }

    /**
     * Motors by number become 1, 2, … in the order of their columns, or the places given for them.
     *
     * @param list<ColumnGuess> $guesses
     * @param list<string>      $places
     * @param list<string>      $given   columns whose trace was ordered
     *
     * @return list<ColumnGuess>
     */
    private static function numbered(array $guesses, array $places, array $given): array
    {
        foreach (['output_' => '_pct', 'rpm_' => ''] as $head => $tail) {
            $n = 0;
            foreach ($guesses as $i => $g) {
                if (null === $g->trace || !str_starts_with($g->trace, $head)) {
                    continue;
                }
                if ((1 === preg_match("~^$head\\d+$tail$~", $g->trace) && !\in_array($g->name, $given, true)) || [] !== $places) {
                    $guesses[$i] = new ColumnGuess($g->column, $g->name, $head.($places[$n] ?? (string) ($n + 1)).$tail, $g->score);
                }
                ++$n;
            }
            if ([] !== $places && 'output_' === $head && \count($places) !== $n) {
                throw LogError::motorsMiscounted(\count($places), $n);
            }
        }

        return $guesses;
    }

    /** @return array{string, list<string>} the beginning in whole lines, and pieces from all over */
    private static function look(string $path): array
    {
        if (!is_file($path) || !is_readable($path)) {
            throw LogError::noFile($path);
        }
        $stream = @gzopen($path, 'rb');
        if (false === $stream) {
            throw LogError::notOpened($path);
        }
        try {
            $start = '';
            while (\strlen($start) < self::START_BYTES) {
                $bytes = @gzread($stream, self::START_BYTES);
                if (false === $bytes || '' === $bytes) {
                    break;
                }
                $start .= $bytes;
            }
            $cut = strrpos($start, "\n");
            if (false === $cut) {
                if (\strlen($start) >= self::START_BYTES) {
                    throw LogError::firstLineTooLong(self::START_BYTES >> 10);
                }
            } else {
                $start = substr($start, 0, $cut);
            }
            $pieces = [];
            $magic = (string) file_get_contents($path, false, null, 0, 2);
            $size = (int) filesize($path);
            if ("\x1F\x8B" === $magic) {
                // Packed: it has to be unpacked to be looked into, so every so many bytes one piece is kept.
                for ($n = 1, $most = 400; $n < $most && !gzeof($stream); ++$n) {
                    $bytes = @gzread($stream, 4 * self::PIECE_BYTES);
                    if (false === $bytes || '' === $bytes) {
                        break;
                    }
                    if (0 === $n % 6) {
                        $pieces[] = substr($bytes, 0, self::PIECE_BYTES);
                    }
                }
            } else {
                for ($n = 1; $n <= self::PIECES && $size > self::START_BYTES; ++$n) {
                    $pieces[] = (string) file_get_contents(
                        $path,
                        false,
                        null,
                        self::START_BYTES + intdiv(($size - self::START_BYTES) * ($n - 1), self::PIECES),
                        self::PIECE_BYTES,
                    );
                }
            }
        } finally {
            gzclose($stream);
        }

        return [$start, $pieces];
    }

    /**
     * @param list<string> $pieces
     *
     * @return list<list<float>> rows that can be read; cells that cannot are 0
     */
    private static function rows(Dialect $dialect, string $start, array $pieces): array
    {
        $width = \count($dialect->header);
        $rows = [];
        $read = static function (string $data, int $skip, int $step) use ($dialect, $width, &$rows): void {
            foreach (\array_slice(explode("\n", $dialect->plain($data)), $skip) as $i => $line) {
                if (0 !== $i % $step) {
                    continue;
                }
                $cells = explode(',', $line);
                if (\count($cells) === $width && null !== Cell::number($cells[0])) {
                    $rows[] = Cell::numbers($cells);
                }
            }
        };
        $read($start, $dialect->headerLine, 1);
        foreach ($pieces as $piece) {
            $read($piece, 1, 3);
        }

        return $rows;
    }
}
