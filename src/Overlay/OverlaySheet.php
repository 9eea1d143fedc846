<?php

declare(strict_types=1);

namespace Ortholex\App\Overlay;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 42. */
final readonly class OverlaySheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '42',
                'Overlay',
                'The picture itself, with what is drawn over it: put, dragged and keyed where it belongs, from its true source.',
                'overlay',
                ['overlay'],
            ),
        ];
    }
}
