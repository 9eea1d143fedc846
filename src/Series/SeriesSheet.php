<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 63. */
final readonly class SeriesSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [new Sheet('63', 'Series', 'Flights that vary one setting in steps, compared.', 'series')];
    }
}
