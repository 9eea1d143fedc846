<?php

declare(strict_types=1);

namespace Ortholex\App\Wiring;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 13. */
final readonly class WiringSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '13',
                'Wiring',
                'The board with its pads, rails and UARTs; wires drawn from pad to pad, checked as they are drawn; UART settings follow.',
                'wiring',
                ['uart'],
            ),
        ];
    }
}
