<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

use Ortholex\Core\Fact\Code;

/** What is to be done, or has been heard, while analogue ESCs are taught; and what to mind. */
enum CalibrationCode: string implements Code
{
    case NotNeeded = 'calibration.not_needed';
    case TakePackOff = 'calibration.take_pack_off';
    case HoldAtFull = 'calibration.hold_at_full';
    case ConnectPack = 'calibration.connect_pack';
    case TookUpperEnd = 'calibration.took_upper_end';
    case TookLowerEnd = 'calibration.took_lower_end';
    case AllDone = 'calibration.all_done';

    case TakePropsOff = 'calibration.take_props_off';
    case UpperEndMissing = 'calibration.upper_end_missing';
    case LowerEndMissing = 'calibration.lower_end_missing';
}
