<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** A flight log in memory: a clock and traces on its grid, each packed as little-endian float32. */
final readonly class FlightLog
{
    /**
     * @param array<string, string> $packed    trace name => samples × 4 bytes
     * @param string                $settings  the YAML that stood ahead of the header, without comment marks
     * @param list<string>          $leftOut   columns that are no trace of ours
     */
    public function __construct(
        public SampleClock $clock,
        public array $packed,
        public string $settings,
        public BadRows $badRows,
        public array $leftOut = [],
    ) {
    }

    public function has(string $name): bool
    {
        return isset($this->packed[$name]);
    }

    /** @return list<string> */
    public function names(): array
    {
        return array_keys($this->packed);
    }

    /**
     * @return list<float> the whole trace
     *
     * @throws LogError when it was not logged
     */
    public function trace(string $name): array
    {
        $bytes = $this->packed[$name] ?? throw LogError::of("The log has no trace $name.");

        return self::unpackFloats($bytes);
    }

    /**
     * The trace cut at the log's gaps.
     *
     * @return list<list<float>> one list per gap-free segment
     */
    public function runs(string $name): array
    {
        $bytes = $this->packed[$name] ?? throw LogError::of("The log has no trace $name.");
        $runs = [];
        foreach ($this->clock->segments as $segment) {
            $runs[] = self::unpackFloats(substr($bytes, 4 * $segment->first, 4 * $segment->count));
        }

        return $runs;
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
        $bytes = '';
        foreach (array_chunk($values, 8192) as $chunk) {
            $bytes .= pack('g*', ...$chunk);
        }

        return $bytes;
    }

    /** @return list<float> */
    public static function unpackFloats(string $bytes): array
    {
        /** @var array<int, float>|false $values */
        $values = unpack('g*', $bytes);

        return false === $values ? [] : array_values($values);
    }
}
