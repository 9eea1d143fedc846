<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident\Saying;

use Ortholex\Core\Fact\Code;

/** Why a motor pushes no more, likeliest first. */
enum Cause: string implements Code
{
    case Esc = 'cause.esc';
    case Motor = 'cause.motor';
    case SolderAndWires = 'cause.solder_and_wires';
    case Prop = 'cause.prop';
    case IdleTooLow = 'cause.idle_too_low';
    case SyncLossGuard = 'cause.sync_loss_guard';
    case AdvanceTooHigh = 'cause.advance_too_high';
}
