<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Ortholex\Core\Firmware\Fit;

/** One image on sheet 12 with its verdict. */
final readonly class FirmwareRow
{
    /** @param float|null $loadPct loop load of this craft's settings under this build, %; null while no settings are known */
    public function __construct(public ShelfItem $item, public Fit $fit, public int $compared, public ?float $loadPct)
    {
    }
}
