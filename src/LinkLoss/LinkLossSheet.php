<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 32. */
final readonly class LinkLossSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '32',
                'Link loss',
                'Hold, then cut, descend or return: drawn over time, rehearsed with the radio off, and flown in the simulator.',
                'link_loss',
                ['link_loss'],
            ),
        ];
    }
}
