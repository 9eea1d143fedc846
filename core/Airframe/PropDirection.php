<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/** Where the blades sweep at the nose. */
enum PropDirection: string
{
    case PropsIn = 'props_in';
    case PropsOut = 'props_out';
}
