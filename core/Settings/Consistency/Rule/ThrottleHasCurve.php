<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Control\ThrottleCurve;
use Ortholex\Core\Control\ThrottleCurveError;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** Throttle rises from nothing through hover to its limit. */
final readonly class ThrottleHasCurve implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        try {
            ThrottleCurve::in($set);
        } catch (ThrottleCurveError) {
            yield Clash::refuse(
                'throttle.hover_output_pct',
                ClashCode::NoThrottleCurve,
                output: $set->number('throttle.hover_output_pct', 50),
                limit: $set->number('throttle.limit_pct', 100),
            );
        }
    }
}
