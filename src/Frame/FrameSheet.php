<?php

declare(strict_types=1);

namespace Ortholex\App\Frame;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 14. */
final readonly class FrameSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '14',
                'Frame',
                'The craft by its real geometry; the mounting found by showing it level and nose up; the mixer as thrust arrows.',
                'frame',
            ),
        ];
    }
}
