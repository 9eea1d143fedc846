<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 21. */
final readonly class RadioSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '21',
                'Radio',
                'The sticks as they are held: protocol, binding, order, spans and jitter, found by showing; delay and telemetry.',
                'radio',
                ['channel', 'receiver', 'telemetry'],
            ),
        ];
    }
}
