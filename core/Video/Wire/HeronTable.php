<?php

declare(strict_types=1);

namespace Ortholex\Core\Video\Wire;

/** What a video transmitter can be set to, as it tells it. */
final readonly class HeronTable
{
    /**
     * @param list<float> $mhz rising
     * @param list<float> $mw
     */
    public function __construct(public array $mhz, public array $mw)
    {
    }

    public function pack(): string
    {
        return pack('v*', ...array_map(intval(...), $this->mhz), ...[0], ...array_map(intval(...), $this->mw));
    }

    /** Null for bytes that are no table. */
    public static function unpack(string $bytes): ?self
    {
        $all = '' === $bytes || 0 !== \strlen($bytes) % 2 ? false : unpack('v*', $bytes);
        $all = false === $all ? [] : array_values($all);
        $end = array_search(0, $all, true);
        if (false === $end || 0 === $end || $end === \count($all) - 1) {
            return null;
        }

        $floats = array_map(static fn (mixed $v): float => \is_int($v) ? (float) $v : 0.0, $all);

        return new self(\array_slice($floats, 0, $end), \array_slice($floats, $end + 1));
    }
}
