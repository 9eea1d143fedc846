<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 12. */
final readonly class FirmwareSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('12', 'Firmware', 'Which images fit this board, and writing one safely.', 'firmware'),
        ];
    }
}
