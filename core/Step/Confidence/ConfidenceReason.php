<?php

declare(strict_types=1);

namespace Ortholex\Core\Step\Confidence;

use Ortholex\Core\Fact\Code;

/** What limits how far a step response can be believed, or why there is none. */
enum ConfidenceReason: string implements Code
{
    case FewWindows = 'confidence.few_windows';
    case NoIntervals = 'confidence.no_intervals';
    case DelayUncertain = 'confidence.delay_uncertain';
    case PeakUncertain = 'confidence.peak_uncertain';
    case SteadyOff = 'confidence.steady_off';
    case FeedForwardOn = 'confidence.feed_forward_on';
    case TermsUnseen = 'confidence.terms_unseen';
    case AtEnds = 'confidence.at_ends';
    case BandTooNarrow = 'confidence.band_too_narrow';
    case NoPlainLoop = 'confidence.no_plain_loop';
    case DVaried = 'confidence.d_varied';
    case ExcludedByHand = 'confidence.excluded_by_hand';
    case OneAxisOnly = 'confidence.one_axis_only';
    case NoRate = 'confidence.no_rate';
    case FarTooSlow = 'confidence.far_too_slow';
    case NoSetpoint = 'confidence.no_setpoint';
    case NothingUsed = 'confidence.nothing_used';
    case WindowsExcluded = 'confidence.windows_excluded';
    case TooFewFrequencies = 'confidence.too_few_frequencies';
    case WindowTooShort = 'confidence.window_too_short';
}
