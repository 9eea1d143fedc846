<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** Tracking notches look for peaks from a lower to a higher frequency. */
final readonly class TrackingBandRises implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        if ($set->number('notch.tracking.count') > 0 && $set->number('notch.tracking.low_hz') >= $set->number('notch.tracking.high_hz')) {
            yield Clash::refuse('notch.tracking.low_hz', ClashCode::TrackingBandTurned);
        }
    }
}
