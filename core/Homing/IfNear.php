<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

/** What a return does when it is asked for nearer to home than the least distance. */
enum IfNear: string
{
    /** It comes down where it is. */
    case LandHere = 'land_here';

    /** It climbs and comes back all the same. */
    case ComeBack = 'come_back';

    /** It stays where it is, at its height, until the sticks take over. */
    case Stay = 'stay';
}
