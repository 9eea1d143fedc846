<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Craft\SettingSet;

/** By how much P and D are scaled as they are flown: less above half throttle, more as the pack sags. */
final readonly class GainScale
{
    /** Volts of a cell for which gains are meant. */
    public const NOMINAL_CELL_V = 3.9;

    /** Above this throttle gains fall, %. */
    private const FALLS_FROM_PCT = 50.0;

    private function __construct(private float $fall, private float $rise)
    {
    }

    public static function of(SettingSet $set): self
    {
        return new self($set->number('gain.throttle_fall_pct') / 100, $set->number('gain.sag_rise_pct') / 100);
    }

    /** @param float $throttlePct 0 to 100 */
    public function overThrottle(float $throttlePct): float
    {
        $above = max(0.0, $throttlePct - self::FALLS_FROM_PCT) / (100 - self::FALLS_FROM_PCT);

        return 1 - $this->fall * $above;
    }

    /** @param float $volts of a cell */
    public function overSag(float $volts): float
    {
        return 1 + $this->rise * (self::NOMINAL_CELL_V / max($volts, self::NOMINAL_CELL_V / 2) - 1);
    }

    public function isFlat(): bool
    {
        return 0.0 === $this->fall && 0.0 === $this->rise;
    }
}
