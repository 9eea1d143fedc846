<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

/** The four gains of one axis in the units of the catalogue. */
final readonly class GainSet
{
    public function __construct(public float $p, public float $i, public float $d, public float $ff)
    {
    }

    /** @param array<string, float|int|bool|string> $settings */
    public static function ofAxis(array $settings, string $axis): self
    {
        $n = static fn (string $k): float => is_numeric($settings["gain.$axis.$k"] ?? null) ? (float) $settings["gain.$axis.$k"] : 0.0;

        return new self($n('p'), $n('i'), $n('d'), $n('ff'));
    }
}
