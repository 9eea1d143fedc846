<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 51. */
final readonly class LogsSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('51', 'Logs', 'Flights flown, logs brought in, and what each can tell.', 'logs'),
        ];
    }
}
