<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

/** How many cells a pack can have, by its voltage at rest. */
final readonly class Cells
{
    private const EMPTY_V = 3.3;
    private const FULL_V = 4.25;
    private const MOST = 12;

    /** @return list<int> all that fit, fewest first */
    public static function of(float $volts): array
    {
        $fit = [];
        for ($n = 1; $n <= self::MOST; ++$n) {
            if ($volts / $n >= self::EMPTY_V && $volts / $n <= self::FULL_V) {
                $fit[] = $n;
            }
        }

        return $fit;
    }
}
