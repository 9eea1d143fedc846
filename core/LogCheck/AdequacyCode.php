<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Fact\Code;

/** What a log can be used for, or why not. */
enum AdequacyCode: string implements Code
{
    case StepResponse = 'adequacy.step_response';
    case NoiseAgainstThrottle = 'adequacy.noise_against_throttle';
    case Lag = 'adequacy.lag';
    case TermVerdicts = 'adequacy.term_verdicts';
    case WhoStoppedPushing = 'adequacy.who_stopped_pushing';

    case FarTooSlow = 'adequacy.far_too_slow';
    case TooShort = 'adequacy.too_short';
    case NoSetpoint = 'adequacy.no_setpoint';
    case SticksStill = 'adequacy.sticks_still';
    case NoMeasuredRate = 'adequacy.no_measured_rate';
    case NoThrottle = 'adequacy.no_throttle';
    case FewThrottleLevels = 'adequacy.few_throttle_levels';
    case SampledSlowly = 'adequacy.sampled_slowly';
    case NoTerms = 'adequacy.no_terms';
    case NoOutputs = 'adequacy.no_outputs';
    case Thinned = 'adequacy.thinned';

    /** Whether it is a use rather than what stands against one. */
    public function isUse(): bool
    {
        return match ($this) {
            self::StepResponse, self::NoiseAgainstThrottle, self::Lag, self::TermVerdicts, self::WhoStoppedPushing => true,
            default => false,
        };
    }
}
