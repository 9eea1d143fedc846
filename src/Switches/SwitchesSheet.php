<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 23. */
final readonly class SwitchesSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet(
                '23',
                'Switch map',
                'For every position of every switch, what is on; set by flicking the lever, checked as a whole.',
                'switches',
                ['action', 'arming', 'angle', 'horizon'],
            ),
        ];
    }
}
