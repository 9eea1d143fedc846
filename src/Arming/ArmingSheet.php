<?php

declare(strict_types=1);

namespace Ortholex\App\Arming;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 31. */
final readonly class ArmingSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '31',
                'Interlocks',
                'Will it arm, and if not, why? The chain from transmitter to props, each open link with the step that mends it.',
                'interlocks',
                ['interlock', 'disarm'],
            ),
        ];
    }
}
