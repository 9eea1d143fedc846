<?php

declare(strict_types=1);

namespace Ortholex\Bench\Power;

/** What a processor does: nothing without power, its firmware, only its bootloader, or nothing that answers. */
enum Mode: string
{
    case Off = 'off';
    case Firmware = 'firmware';
    case Bootloader = 'bootloader';
    case Dead = 'dead';
}
