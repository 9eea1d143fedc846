<?php

declare(strict_types=1);

namespace Ortholex\App\Feel;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 22. */
final readonly class FeelSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '22',
                'Feel',
                'Rotation rate against stick, drawn and dragged, with its slope; throttle around hover; the command low-pass.',
                'feel',
                ['feel', 'throttle', 'command_low_pass'],
            ),
        ];
    }
}
