<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog;

/** What is wrong with a time stamp: a hole; one that unreadable rows explain; time going back; a stamp repeated. */
enum TimeFaultKind: string
{
    case Gap = 'gap';
    case LeftOut = 'left_out';
    case Back = 'back';
    case Repeat = 'repeat';
}
