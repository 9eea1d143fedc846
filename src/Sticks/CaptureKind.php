<?php

declare(strict_types=1);

namespace Ortholex\App\Sticks;

/** What a capture of the sticks is to learn. */
enum CaptureKind: string
{
    /** One stick at a time: which channel carries it. */
    case Order = 'order';

    /** All sticks to their ends, and let go. */
    case Spans = 'spans';

    /** Each lever through its positions. */
    case Levers = 'levers';
}
