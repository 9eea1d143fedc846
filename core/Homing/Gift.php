<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LinkLoss\Then;
use Ortholex\Core\Switches\Action;

/** What a craft can get from knowing its position, each needing more than the one before it. */
enum Gift: string
{
    case Figures = 'figures';
    case Hold = 'hold';
    case Return = 'return';
    case ReturnAtLoss = 'return_at_loss';

    /**
     * What it still needs.
     *
     * @param list<string> $sensors    of the board
     * @param bool         $calibrated whether the compass was
     * @param bool         $rehearsed  whether a return was flown in the simulator as it is set now
     *
     * @return list<GiftNeed>
     */
    public function needs(SettingSet $set, array $sensors, bool $calibrated, bool $rehearsed): array
    {
        $needs = [];
        if (!$set->flag('location.enabled')) {
            $needs[] = GiftNeed::Position;
        }
        if (self::Figures === $this) {
            return $needs;
        }
        if (!\in_array('compass', $sensors, true)) {
            $needs[] = GiftNeed::Compass;
        } elseif (!$set->flag('compass.enabled') || !$calibrated) {
            $needs[] = GiftNeed::Calibration;
        }
        if (!\in_array('barometer', $sensors, true)) {
            $needs[] = GiftNeed::Barometer;
        }
        $zone = static fn (Action $a): bool => '' !== trim($set->text($a->setting()));
        if (self::Hold === $this && !$zone(Action::PositionHold)) {
            $needs[] = GiftNeed::Lever;
        }
        if (self::Return === $this && !$zone(Action::Return)) {
            $needs[] = GiftNeed::Lever;
        }
        if (self::ReturnAtLoss === $this && Then::Return->value !== $set->text('link_loss.then')) {
            $needs[] = GiftNeed::LossPlan;
        }
        if (self::Hold !== $this && !$rehearsed) {
            $needs[] = GiftNeed::Rehearsal;
        }

        return $needs;
    }
}
