<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 15. */
final readonly class MotorsSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '15',
                'Motors',
                'The spin check: one motor turned alone, gently; you say which moved and which way, and the pad map and reversals follow.',
                'motors',
                ['motors'],
            ),
        ];
    }
}
