<?php

declare(strict_types=1);

namespace Ortholex\App\Identity;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 11. */
final readonly class IdentitySheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('11', 'Identity', 'Who the board is, what it runs, and how it lies.', 'identity'),
        ];
    }
}
