<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheets 71 to 73. */
final readonly class RecordSheets implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('71', 'All settings', 'Every setting of the craft, against its defaults, as YAML too.', 'settings'),
            new Sheet('72', 'Snapshots', 'Full copies of the settings, and the way back to each.', 'snapshots'),
            new Sheet('73', 'Changes', 'Every change: when, why, from, to, and the way back.', 'changes'),
        ];
    }
}
