<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 62. */
final readonly class FiltersSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('62', 'Filters', 'What the filters cost in delay and buy in quiet.', 'filters', [
                'rate_path',
                'd_path',
                'notch',
                'command_low_pass',
                'filter',
            ]),
        ];
    }
}
