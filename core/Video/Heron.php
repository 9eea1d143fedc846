<?php

declare(strict_types=1);

namespace Ortholex\Core\Video;

/** What a Heron 400 can be set to, where nobody has read it from the module. */
final readonly class Heron
{
    public const FIRST_MHZ = 5648.0;
    public const STEP_MHZ = 7.0;
    public const CHANNELS = 40;

    /** mW */
    public const POWERS = [1.0, 25.0, 100.0, 400.0];

    /** @return list<float> MHz, rising */
    public static function mhz(): array
    {
        return array_map(static fn (int $i): float => self::FIRST_MHZ + self::STEP_MHZ * $i, range(0, self::CHANNELS - 1));
    }
}
