<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay\Source;

/** Where the voltage that is shown comes from. */
enum VoltageFrom: string
{
    /** The board's divider at the pack. */
    case Pack = 'pack';

    /** What the ESCs tell. */
    case Escs = 'escs';

    /** The rail that feeds camera and transmitter, which a regulator holds. */
    case VideoRail = 'video_rail';
}
