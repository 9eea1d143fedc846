<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Fact\Code;

/** What about another craft makes its gains mean something else here. */
enum NotComparable: string implements Code
{
    case Size = 'not_comparable.size';
    case Props = 'not_comparable.props';
    case Cells = 'not_comparable.cells';
    case LoopRate = 'not_comparable.loop_rate';
    case Layout = 'not_comparable.layout';
    case Filters = 'not_comparable.filters';
}
