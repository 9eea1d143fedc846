<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Fact\Code;

/** Why an ESC cannot honour a setting. */
enum Inability: string implements Code
{
    case MeasuresNoHeat = 'inability.measures_no_heat';
    case FirmwareDoesNotKnow = 'inability.firmware_does_not_know';
    case OnlyBootloaderRuns = 'inability.only_bootloader_runs';
    case Silent = 'inability.silent';
}
