<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheets that are not built yet: each says what will stand there, until a folder of its own offers it. */
final readonly class PlannedSheets implements SheetOffer
{
    private const ROWS = [
        ['41', 'Location', 'Satellites, the fix, and how much a still craft seems to wander.'],
        ['42', 'Overlay', 'What is drawn over the video picture, on its grid.'],
        ['43', 'Camera and video', 'Tilt per degree; channel and power within the law of the place.'],
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
