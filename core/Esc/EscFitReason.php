<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

use Ortholex\Core\Fact\Code;

/** Why an image fits an ESC or does not. */
enum EscFitReason: string implements Code
{
    case OtherLayout = 'esc_fit.other_layout';
    case OtherClock = 'esc_fit.other_clock';
    case DeadTimeShorter = 'esc_fit.dead_time_shorter';
    case DeadTimeDiffers = 'esc_fit.dead_time_differs';
    case OutsideFlash = 'esc_fit.outside_flash';
    case OtherBytes = 'esc_fit.other_bytes';
    case PreRelease = 'esc_fit.pre_release';
    case NoRpmFeedback = 'esc_fit.no_rpm_feedback';
    case Older = 'esc_fit.older';
    case OtherFamily = 'esc_fit.other_family';
    case FewSteps = 'esc_fit.few_steps';
    case MadeForIt = 'esc_fit.made_for_it';
}
