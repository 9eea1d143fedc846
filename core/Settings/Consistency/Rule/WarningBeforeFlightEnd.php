<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** The pack warns before the flight must end. */
final readonly class WarningBeforeFlightEnd implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        if ($set->number('pack.flight_end_cell_v') >= $set->number('pack.warn_cell_v')) {
            yield Clash::warn('pack.flight_end_cell_v', ClashCode::NoWarningBeforeFlightEnd);
        }
    }
}
