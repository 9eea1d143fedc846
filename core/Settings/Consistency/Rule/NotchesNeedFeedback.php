<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** Motor notches follow the speeds that the ESCs answer with. */
final readonly class NotchesNeedFeedback implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        if ('' !== $set->text('notch.motor.orders') && !$set->flag('motors.rpm_feedback')) {
            yield Clash::warn('notch.motor.orders', ClashCode::NotchesWithoutFeedback);
        }
    }
}
