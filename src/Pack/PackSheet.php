<?php

declare(strict_types=1);

namespace Ortholex\App\Pack;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 33. */
final readonly class PackSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '33',
                'Pack',
                'Voltage calibrated against a meter, warning and flight end drawn on the craft\'s own discharge, and minutes left.',
                'pack',
                ['pack'],
            ),
        ];
    }
}
