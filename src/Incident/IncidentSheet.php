<?php

declare(strict_types=1);

namespace Ortholex\App\Incident;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 55. */
final readonly class IncidentSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('55', 'Incidents', 'The moment it went wrong: cause, effect, and which motor lost thrust.', 'incidents'),
        ];
    }
}
