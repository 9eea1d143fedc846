<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** The signal to the ESCs, and their answer, fit into one turn of the loop. */
final readonly class SignalFitsLoop implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        $signal = MotorSignal::in($set);
        $answer = $set->flag('motors.rpm_feedback') && $signal->isDigital();
        $timing = SignalTiming::of($signal, $answer);
        if (!$timing->fits($set->loopHz())) {
            yield Clash::refuse(
                'motors.loop_rate_hz',
                $answer ? ClashCode::SignalAndAnswerLongerThanLoop : ClashCode::SignalLongerThanLoop,
                signal: $signal->value,
                us: $timing->frameUs,
                loop_hz: $set->loopHz(),
                highest_hz: $timing->highestLoopHz(),
            );
        }
    }
}
