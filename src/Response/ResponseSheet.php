<?php

declare(strict_types=1);

namespace Ortholex\App\Response;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 54. */
final readonly class ResponseSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('54', 'Response', 'What the craft does to a unit step of the stick, and how sure that is.', 'response'),
        ];
    }
}
