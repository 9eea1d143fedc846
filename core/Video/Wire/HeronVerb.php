<?php

declare(strict_types=1);

namespace Ortholex\Core\Video\Wire;

/** What a Heron can be asked, over its one wire. */
enum HeronVerb: int
{
    /** Its channels in MHz, two bytes each, and then its powers in mW, behind a nought. */
    case Table = 0x11;

    /** MHz, mW, tenths of a degree, and whether it protects itself. */
    case State = 0x12;

    /** To a frequency of its table, MHz. */
    case Tune = 0x13;

    /** To a power of its table, mW. */
    case Power = 0x14;
}
