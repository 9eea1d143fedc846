<?php

declare(strict_types=1);

namespace Ortholex\Bench\State;

/**
 * Releases of Loam as they were first numbered: boards flashed in those days still hold such a number in their
 * label, and worlds kept in those days in their memory. Both are read as the numbers by year and month.
 */
final readonly class FirstNumbering
{
    private const NOW = [
        '4.0.3' => '25.02',
        '4.1.2' => '25.08',
        '4.2.1' => '26.01',
        '4.3.0' => '26.06',
        '4.4.0-pre1' => '26.10-pre1',
    ];

    public static function now(string $version): string
    {
        return self::NOW[$version] ?? $version;
    }
}
