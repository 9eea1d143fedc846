<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;

/** The four gains of one axis in the units of the catalogue. */
final readonly class GainSet
{
    public function __construct(public float $p, public float $i, public float $d, public float $ff)
    {
    }

    public static function ofAxis(SettingSet $set, Axis $axis): self
    {
        $gain = static fn (string $term): float => $set->number("gain.{$axis->value}.$term");

        return new self($gain('p'), $gain('i'), $gain('d'), $gain('ff'));
    }
}
