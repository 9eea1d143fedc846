<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

use Ortholex\Core\Fact\Code;

/** What is wrong with a layout, or to be minded of it. */
enum OverlayFlaw: string implements Code
{
    case OffGrid = 'overlay.off_grid';
    case Overlap = 'overlay.overlap';
    case NoRoom = 'overlay.no_room';
    case AtEdge = 'overlay.at_edge';
    case RunTogether = 'overlay.run_together';
    case NoSource = 'overlay.no_source';
    case NoWarnings = 'overlay.no_warnings';
    case BadCells = 'overlay.bad_cells';
    case BadTimes = 'overlay.bad_times';
    case BadBytes = 'overlay.bad_bytes';
    case BadFont = 'overlay.bad_font';
}
