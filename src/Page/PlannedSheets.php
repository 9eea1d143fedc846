<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheets that are not built yet: each says what will stand there, until a folder of its own offers it. */
final readonly class PlannedSheets implements SheetOffer
{
    private const ROWS = [
        ['63', 'Series', 'Flights that vary one setting in steps, compared.'],
    ];

    public function sheets(): array
    {
        return array_map(
            static fn (array $row): Sheet => new Sheet($row[0], $row[1], $row[2], PlannedSheetController::ROUTE, built: false),
            self::ROWS,
        );
    }
}
