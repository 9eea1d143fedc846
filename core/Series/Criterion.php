<?php

declare(strict_types=1);

namespace Ortholex\Core\Series;

/** What the flights of a series are ranked by. */
enum Criterion: string
{
    /** Lag of rotation after the command, ms: nearest nothing from above. For feed-forward. */
    case Lag = 'lag';

    /** What the step is off by, ms of error. For P, I and D. */
    case StepError = 'step_error';

    /** Noise behind the filters and their delay together. For filters, and notch orders. */
    case Noise = 'noise';

    /** Noise before the filters: what was replaced, not set. For mounting and props. */
    case Shaking = 'shaking';

    public static function for(string $setting): self
    {
        return match (true) {
            1 === preg_match('~^gain\.\w+\.(ff|added_d)$|^command_low_pass\.~', $setting) => self::Lag,
            str_starts_with($setting, 'gain.') => self::StepError,
            1 === preg_match('~^(rate_path|d_path|notch)\.~', $setting) => self::Noise,
            default => self::Shaking,
        };
    }

    public function unit(): string
    {
        return match ($this) {
            self::Lag, self::StepError => 'ms',
            self::Noise, self::Shaking => 'deg/s',
        };
    }
}
