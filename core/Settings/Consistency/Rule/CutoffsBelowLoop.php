<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Control\LowPass;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** A low-pass needs a loop that is faster than twice its cutoff, with room for the filter to be one. */
final readonly class CutoffsBelowLoop implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        foreach (RateFilters::PATHS as $path) {
            foreach (RateFilters::STAGES as $n) {
                $name = "$path.stage.$n.cutoff_hz";
                if (LowPass::Off !== LowPass::of($set, $path, $n) && $set->number($name) >= RateFilters::highestHz($set->loopHz())) {
                    yield Clash::refuse(
                        $name,
                        ClashCode::CutoffAboveLoop,
                        hz: $set->number($name),
                        loop_hz: $set->number($name) / RateFilters::highestHz(1.0),
                    );
                }
            }
        }
    }
}
