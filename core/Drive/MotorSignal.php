<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

use Ortholex\Core\Craft\SettingSet;

/** How outputs are sent to the ESCs: as the length of a pulse, or as a number. */
enum MotorSignal: string
{
    public const ZERO_US = 1000.0;
    public const FULL_US = 2000.0;

    case Pwm = 'pwm';
    case Oneshot125 = 'oneshot125';
    case Dshot150 = 'dshot150';
    case Dshot300 = 'dshot300';
    case Dshot600 = 'dshot600';

    /** The one that settings name; the usual one where they name none. */
    public static function in(SettingSet $set): self
    {
        return self::tryFrom($set->text('motors.protocol')) ?? self::Dshot300;
    }

    /** The pulse that stands for an output in %, in µs; the faster kinds send the same, divided. */
    public static function pulseUs(float $outputPct): float
    {
        return self::ZERO_US + ((self::FULL_US - self::ZERO_US) * $outputPct) / 100;
    }

    public function isDigital(): bool
    {
        return null !== $this->kilobits();
    }

    /** Bits per ms; null for a pulse. */
    public function kilobits(): ?int
    {
        return match ($this) {
            self::Pwm, self::Oneshot125 => null,
            self::Dshot150 => 150,
            self::Dshot300 => 300,
            self::Dshot600 => 600,
        };
    }
}
