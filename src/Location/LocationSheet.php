<?php

declare(strict_types=1);

namespace Ortholex\App\Location;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 41. */
final readonly class LocationSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '41',
                'Location',
                'The sky as its receiver hears it, how much a still craft wanders, the compass, and the way home rehearsed.',
                'location',
                ['location', 'compass', 'hold', 'return', 'altitude_hold'],
            ),
        ];
    }
}
