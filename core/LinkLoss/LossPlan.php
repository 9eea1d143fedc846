<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

use Ortholex\Core\Craft\SettingSet;

/**
 * The link-loss plan: from the last frame that counts, hold for a time, then cut, descend or return. The board goes by it; the sheet
 * draws it; the flight simulator flies it.
 */
final readonly class LossPlan
{
    /** A gap this short is no loss, s: some frames are always lost, and the slowest receivers speak every 22 ms. */
    public const NOTICE_S = 0.15;

    /** A throttle threshold at or below this never acts: nothing a receiver sends is lower, µs. */
    public const NEVER_BELOW_US = 800.0;

    /**
     * @param float $holdS         from the last frame
     * @param float $descendPct    throttle of the descent
     * @param float $descendS      how long it descends before the motors stop
     * @param float $throttleBelow a frame whose throttle lies lower counts as none, µs
     */
    private function __construct(
        public float $holdS,
        public Then $then,
        public float $descendPct,
        public float $descendS,
        public float $throttleBelow,
    ) {
    }

    public static function in(SettingSet $set): self
    {
        return new self(
            // Older releases count it in milliseconds.
            $set->has('link_loss.hold_s') ? $set->number('link_loss.hold_s') : $set->number('link_loss.hold_ms', 500) / 1000,
            Then::tryFrom($set->text('link_loss.then')) ?? Then::Cut,
            $set->number('link_loss.descend_throttle_pct', 28),
            $set->number('link_loss.descend_s', 20),
            $set->number('link_loss.throttle_below_us', self::NEVER_BELOW_US),
        );
    }

    /**
     * @param float $sinceS seconds since the last frame that counts
     * @param float $blindS seconds since it knew its way home last: a return ends by the clock only where it has become a descent
     */
    public function stage(float $sinceS, float $blindS = \INF): Stage
    {
        return match (true) {
            $sinceS <= self::NOTICE_S => Stage::Heard,
            $sinceS <= $this->holdS => Stage::Hold,
            Then::Cut === $this->then => Stage::Cut,
            min($sinceS - $this->holdS, Then::Return === $this->then ? $blindS : \INF) > $this->descendS => Stage::Cut,
            Then::Return === $this->then => Stage::Return,
            default => Stage::Descend,
        };
    }

    /** Seconds from the last frame until the motors stop by the plan. */
    public function endsS(): float
    {
        return Then::Cut === $this->then ? max($this->holdS, self::NOTICE_S) : $this->holdS + $this->descendS;
    }

    /** Whether a frame with this throttle counts. */
    public function counts(?float $throttleUs): bool
    {
        return null === $throttleUs || $throttleUs >= $this->throttleBelow;
    }
}
