<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

/** What a setting belongs to: the board's in the order of the catalogue, then those of an ESC. */
enum SettingGroup: string
{
    case Gains = 'gains';
    case Filters = 'filters';
    case Feel = 'feel';
    case Motors = 'motors';
    case Frame = 'frame';
    case Wiring = 'wiring';
    case Radio = 'radio';
    case Switches = 'switches';
    case Guard = 'guard';
    case Aids = 'aids';

    /** Of an ESC. */
    case Direction = 'direction';
    case Commutation = 'commutation';
    case Braking = 'braking';
    case Limits = 'limits';
    case EndPoints = 'end_points';
    case Sounds = 'sounds';
}
