<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Ortholex\App\Shelf\ShelfItem;
use Ortholex\Core\Firmware\Fit;
use Ortholex\Core\Firmware\FitVerdict;

/** One image on sheet 12 with its verdict. */
final readonly class FirmwareRow
{
    /** @param float|null $loadPct loop load of this craft's settings under this build, %; null while no settings are known */
    public function __construct(public ShelfItem $item, public Fit $fit, public int $compared, public ?float $loadPct)
    {
    }

    /** How its verdict is shown: good, caution or stop. */
    public function tone(): string
    {
        return match ($this->fit->verdict) {
            FitVerdict::Fits => 'good',
            FitVerdict::DoesNotFit => 'stop',
            default => 'caution',
        };
    }

    /** How this version stands to the one that runs: −1 older, 0 the same, 1 newer. */
    public function direction(): int
    {
        return $this->compared <=> 0;
    }
}
