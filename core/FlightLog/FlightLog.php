<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\Clock\Pieces;
use Ortholex\Core\Signal\Floats;

/** A flight log: a clock and traces on its grid, each a column of little-endian float32. */
final readonly class FlightLog
{
    /**
     * @param array<string, Column> $columns   by trace name
     * @param string                $settings  the YAML that stood ahead of the header, without comment marks
     * @param list<string>          $leftOut   columns that are no trace of ours
     * @param list<string>|null     $logged    names of all traces, where not all of them were kept
     */
    public function __construct(
        public SampleClock $clock,
        private array $columns,
        public string $settings,
        public BadRows $badRows,
        public array $leftOut = [],
        private ?array $logged = null,
    ) {
    }

    public function has(string $name): bool
    {
        return isset($this->columns[$name]);
    }

    /** @return list<string> of the traces that are here */
    public function names(): array
    {
        return array_keys($this->columns);
    }

    /** @return list<string> of all that were logged, also of those that nobody looks at here */
    public function logged(): array
    {
        return $this->logged ?? $this->names();
    }

    /**
     * @return list<float> the whole trace
     *
     * @throws LogError when it was not logged
     */
    public function trace(string $name): array
    {
        return $this->column($name)->values();
    }

    /**
     * The trace cut at the log's gaps.
     *
     * @return list<list<float>> one list per gap-free segment
     */
    public function runs(string $name): array
    {
        return $this->decimatedRuns($name, 1);
    }

    /**
     * The same with so many samples averaged into one.
     *
     * @return list<list<float>> one list per gap-free segment
     */
    public function decimatedRuns(string $name, int $factor): array
    {
        $column = $this->column($name);
        $runs = [];
        foreach ($this->clock->segments as $segment) {
            $runs[] = 1 === $factor
                ? $column->values($segment->first, $segment->count)
                : $column->decimated($factor, $segment->first, $segment->count);
        }

        return $runs;
    }

    /** Name of the trace nearest the rotation itself; null where no rate of the axis was logged. */
    public function rateOfRotation(Axis $axis): ?string
    {
        return Traces::rateOfRotation($this->names(), $axis);
    }

    /** Name of the rate that the controller saw; null where no rate of the axis was logged. */
    public function rateAsFlown(Axis $axis): ?string
    {
        return Traces::rateOfControl($this->names(), $axis);
    }

    /** A setting as the log's head gives it, or null. The head is YAML, one setting a line. */
    public function setting(string $name): ?string
    {
        return 1 === preg_match('~^'.preg_quote($name, '~').':[ \t]*["\']?([^"\'\r\n#]*)~m', $this->settings, $m) ? trim($m[1]) : null;
    }

    /** @throws LogError when it was not logged */
    public function column(string $name): Column
    {
        return $this->columns[$name] ?? throw LogError::noTrace($name);
    }

    /** @return array<string, string> all samples, float32, by trace */
    public function packed(): array
    {
        return array_map(static fn (Column $c): string => $c->bytes(), $this->columns);
    }

    /**
     * The same log with some traces under other names, or turned about.
     *
     * @param array<string, string> $names new name by old
     * @param list<string>          $turn  traces whose sign is turned
     */
    public function with(array $names, array $turn = []): self
    {
        $columns = [];
        foreach ($this->columns as $name => $column) {
            $columns[$names[$name] ?? $name] = \in_array($name, $turn, true)
                ? Column::ofBytes(self::packFloats(array_map(static fn (float $v): float => -$v, $column->values())))
                : $column;
        }

        $logged = null === $this->logged ? null : array_map(static fn (string $name): string => $names[$name] ?? $name, $this->logged);

        return new self($this->clock, $columns, $this->settings, $this->badRows, $this->leftOut, $logged);
    }

    /** The part between two times of the log's own clock, s. */
    public function between(float $fromS, float $toS): self
    {
        [$clock, $first, $count] = $this->clock->between($fromS, $toS);
        $columns = array_map(static fn (Column $c): Column => Column::ofBytes($c->bytes($first, $count)), $this->columns);

        return new self($clock, $columns, $this->settings, $this->badRows, $this->leftOut, $this->logged);
    }

    /**
     * Where it has more samples than so many: stretches that stand for it, evenly spread, in temporary files of their own.
     *
     * @throws LogError where there is no room for these
     */
    public function thinned(int $most): self
    {
        if ($this->clock->samples <= $most) {
            return $this;
        }
        $pieces = Pieces::of($this->clock->segments, $this->clock->rateHz, $most);
        $segments = $columns = [];
        $count = 0;
        foreach ($pieces as $piece) {
            $segments[] = new Segment($count, $piece->count, $piece->startS);
            $count += $piece->count;
        }
        foreach ($this->columns as $name => $column) {
            $columns[$name] = Column::spool(4);
            foreach ($pieces as $piece) {
                $columns[$name]->append($column->bytes($piece->first, $piece->count));
            }
        }
        $clock = SampleClock::known($this->clock->rateHz, $segments, $this->clock->faults);

        return new self($clock, $columns, $this->settings, $this->badRows, $this->leftOut, $this->logged);
    }

    /** @return list<string> places of the motors logged, in column order */
    public function places(): array
    {
        $places = [];
        foreach ($this->names() as $name) {
            if (1 === preg_match('~^output_(\w+)_pct$~', $name, $m)) {
                $places[] = $m[1];
            }
        }

        return $places;
    }

    /** @param list<float> $values */
    public static function packFloats(array $values): string
    {
        return Floats::of(4)->pack($values);
    }

    /** @return list<float> */
    public static function unpackFloats(string $bytes): array
    {
        return Floats::of(4)->unpack($bytes);
    }
}
