<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 61. */
final readonly class GainsSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('61', 'Gains', 'P, I, D and feed-forward, with the step they would give.', 'gains', ['gain', 'gain_b']),
        ];
    }
}
