<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

/** The ends of an analogue signal, each kept in the ESC as a setting of that name, µs. */
enum EndPoint: string
{
    /** The longest pulse that means zero. */
    case Low = 'low_us';

    /** The shortest that means full. */
    case High = 'high_us';

    /** What an ESC holds that was never taught, µs: rough, and safe for most boards. */
    public function untaughtUs(): float
    {
        return match ($this) {
            self::Low => 1060.0,
            self::High => 1860.0,
        };
    }

    /** @param array<string, float|int|bool|string> $held by key, of one ESC */
    public function of(array $held): float
    {
        $us = $held[$this->value] ?? null;

        return \is_float($us) || \is_int($us) ? (float) $us : $this->untaughtUs();
    }
}
