<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\FeelError;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** A curve passes through the three rates of each axis. */
final readonly class FeelHasCurve implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        foreach (Axis::cases() as $axis) {
            try {
                Feel::in($set, $axis);
            } catch (FeelError $e) {
                yield Clash::refuse(
                    "feel.{$axis->value}.half_dps",
                    ClashCode::NoFeelCurve,
                    quarter: $e->quarter,
                    half: $e->half,
                    full: $e->full,
                );
            }
        }
    }
}
