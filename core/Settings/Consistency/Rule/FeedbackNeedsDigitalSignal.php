<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** Only on a digital signal can an ESC answer. */
final readonly class FeedbackNeedsDigitalSignal implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        if ($set->flag('motors.rpm_feedback') && !MotorSignal::in($set)->isDigital()) {
            yield Clash::refuse('motors.rpm_feedback', ClashCode::FeedbackWithoutDigitalSignal);
        }
    }
}
