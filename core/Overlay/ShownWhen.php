<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

/** When a layout is shown. */
enum ShownWhen: string
{
    case Always = 'always';
    case Disarmed = 'disarmed';
    case Armed = 'armed';
    case PackLow = 'pack_low';
    case LinkWeak = 'link_weak';
    case Returning = 'returning';

    /** While the action of that name is on. */
    case Action = 'action';
}
