<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

/** What a radio needs next, in the order in which it is done. */
enum RadioStep: string
{
    case Link = 'link';
    case Find = 'find';
    case Commit = 'commit';
    case Power = 'power';
    case Bind = 'bind';
    case Order = 'order';
    case Spans = 'spans';
    case DeadBand = 'dead_band';
    case Sound = 'sound';
}
