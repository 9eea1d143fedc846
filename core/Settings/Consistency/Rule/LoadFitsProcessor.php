<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** The processor has time for the loop. */
final readonly class LoadFitsProcessor implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        $load = LoopLoad::of($set, $of->motors, $of->processor, $of->leftOut);
        if ($load->percent > LoopLoad::REFUSE_PCT) {
            yield Clash::refuse('motors.loop_rate_hz', ClashCode::LoopLoadTooHigh, pct: $load->percent, most_pct: LoopLoad::REFUSE_PCT);
        } elseif ($load->percent > LoopLoad::WARN_PCT) {
            yield Clash::warn('motors.loop_rate_hz', ClashCode::LoopLoadHigh, pct: $load->percent);
        }
    }
}
