<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

/** Where a craft stands on its way home. */
enum HomeStage: string
{
    case Climb = 'climb';
    case Turn = 'turn';
    case FlyBack = 'fly_back';
    case ComeDown = 'come_down';

    /** It hovers where it is. */
    case Stay = 'stay';

    /** Without a fix it comes down level, wherever the wind takes it. */
    case Blind = 'blind';
}
