<?php

declare(strict_types=1);

namespace Ortholex\App\Traces;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 52. */
final readonly class TracesSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('52', 'Traces', 'Every signal on one time base, from the whole flight to ten milliseconds.', 'traces'),
        ];
    }
}
