<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Fact\Code;

/** Why a card is the next to fly. */
enum PlanReason: string implements Code
{
    case NothingKnown = 'plan.nothing_known';
    case NoiseUnknown = 'plan.noise_unknown';
    case ResponseUnknown = 'plan.response_unknown';
    case RepairFirst = 'plan.repair_first';
    case SettingsFirst = 'plan.settings_first';
    case TakeBackFirst = 'plan.take_back_first';
    case NothingMore = 'plan.nothing_more';
    case BothKnown = 'plan.both_known';

    /** As programs read it. */
    public function word(): string
    {
        return substr($this->value, \strlen('plan.'));
    }
}
