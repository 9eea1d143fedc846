<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 16. */
final readonly class EscSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('16', 'ESCs', 'The settings of all ESCs side by side, with the odd one out named.', 'escs', ['esc']),
        ];
    }
}
