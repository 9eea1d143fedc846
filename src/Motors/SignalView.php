<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Settings\Setting;

/** The signal to the ESCs: its settings, and how it fills the control period. */
final readonly class SignalView
{
    /** @param list<Setting> $fields those that this release has */
    public function __construct(
        public ?SignalTiming $timing,
        public float $loopHz,
        public float $loadPct,
        public array $fields,
        public SettingSet $now,
        public SettingSet $staged,
    ) {
    }

    /** Control period, µs. */
    public function periodUs(): float
    {
        return 1e6 / $this->loopHz;
    }

    public function feedbackOn(): bool
    {
        return true === ($this->staged['motors.rpm_feedback'] ?? ($this->now['motors.rpm_feedback'] ?? false));
    }
}
