<?php

declare(strict_types=1);

namespace Ortholex\Bench\Esc;

/**
 * Processors of ESCs and their switching frequencies as they were first laid down: what lies on a bench of those days is read as
 * the same hardware, by the figures of now.
 */
final readonly class FirstClocks
{
    private const MHZ = [24 => 32, 48 => 64];
    private const KHZ = [24 => 20, 48 => 40, 96 => 80];

    public static function mhz(int $clock): int
    {
        return self::MHZ[$clock] ?? $clock;
    }

    public static function khz(int $switching): int
    {
        return self::KHZ[$switching] ?? $switching;
    }
}
