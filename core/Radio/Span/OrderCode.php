<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

use Ortholex\Core\Fact\Code;

/** Why the sticks shown give no order of channels. */
enum OrderCode: string implements Code
{
    case NothingMoved = 'order.nothing_moved';
    case TwoMoved = 'order.two_moved';
    case SameChannel = 'order.same_channel';
    case NotBack = 'order.not_back';
    case NotShown = 'order.not_shown';
}
