<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/** How the motors of a craft stand around its middle. */
enum Layout: string
{
    case QuadX = 'quad_x';
    case QuadPlus = 'quad_plus';
    case QuadStretched = 'quad_stretched';
    case HexaX = 'hexa_x';
    case Custom = 'custom';
}
