<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

use Ortholex\Core\Fact\Code;

/** Why an image fits a board or does not. */
enum FitReason: string implements Code
{
    case NoBoardRead = 'fit.no_board_read';
    case OutsideFlash = 'fit.outside_flash';
    case NoManifest = 'fit.no_manifest';
    case TypeTheName = 'fit.type_the_name';
    case OtherBytes = 'fit.other_bytes';
    case OtherBoard = 'fit.other_board';
    case OtherProcessor = 'fit.other_processor';
    case LeavesOut = 'fit.leaves_out';
    case PreRelease = 'fit.pre_release';
    case Older = 'fit.older';
    case MadeForIt = 'fit.made_for_it';
}
