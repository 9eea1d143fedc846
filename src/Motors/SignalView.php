<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Settings\Setting;

/** The signal to the ESCs: its settings, each at the part of the control period that it shapes; places in percent of the drawing. */
final readonly class SignalView
{
    private const MOST_LOAD_PCT = 95.0;

    /** Above the time line stand these, below it the rest. */
    private const ABOVE = ['motors.protocol', 'motors.rpm_feedback', 'motors.loop_rate_hz'];

    /** What is kept free at the right, for the end of the period to be seen. */
    private const SPARE_PCT = 2.0;

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

    public function fits(): bool
    {
        return null !== $this->timing && $this->timing->fits($this->loopHz);
    }

    /** Whether so much of the loop's time is taken that none is left for the unforeseen. */
    public function overloaded(): bool
    {
        return $this->loadPct > self::MOST_LOAD_PCT;
    }

    /** @return list<Setting> */
    public function above(): array
    {
        return array_values(array_filter($this->fields, static fn (Setting $s): bool => \in_array($s->name, self::ABOVE, true)));
    }

    /** @return list<Setting> */
    public function below(): array
    {
        return array_values(array_filter($this->fields, static fn (Setting $s): bool => !\in_array($s->name, self::ABOVE, true)));
    }

    /** Where a time stands, from the beginning of the period. */
    public function at(float $us): float
    {
        return round(((100 - self::SPARE_PCT) * $us) / max($this->periodUs(), $this->timing->frameUs ?? 0.0), 2);
    }

    public function signalEnd(): float
    {
        return $this->at($this->timing->signalUs ?? 0.0);
    }

    public function answerFrom(): float
    {
        return null === $this->timing ? 0.0 : $this->at($this->timing->signalUs + $this->timing->turnRoundUs);
    }

    public function answerEnd(): float
    {
        return $this->at($this->timing->frameUs ?? 0.0);
    }

    public function periodEnd(): float
    {
        return $this->at($this->periodUs());
    }

    /** Until where the loop reckons. */
    public function loadEnd(): float
    {
        return $this->at(($this->periodUs() * min(100.0, $this->loadPct)) / 100);
    }

    public function feedbackOn(): bool
    {
        return true === ($this->staged['motors.rpm_feedback'] ?? ($this->now['motors.rpm_feedback'] ?? false));
    }
}
