<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Position\PlumbG2;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\Wiring\SolderedParts;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\HomeCondition;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;

/** What the board makes of its position receiver: nothing, unless it is set to listen where and how that speaks. */
final readonly class Whereabouts
{
    public function __construct(private BoardPads $board, private SolderedParts $parts, private WorldState $state, private Pace $pace)
    {
    }

    public static function plumb(WorldState $s, Pace $pace): PlumbG2
    {
        return new PlumbG2(PlumbState::fromArray($s->plumb), $s->outdoors, $pace);
    }

    /** Whether what it says is understood. */
    public function isHeard(): bool
    {
        $set = SettingSet::of($this->state->running);
        $part = Part::all()['plumb-g2'];
        $baud = PlumbState::fromArray($this->state->plumb)->baud;
        foreach ($set->flag('location.enabled') ? array_keys($this->board->uarts) : [] as $uart) {
            $uart = (string) $uart;
            if (
                PartRole::Gps->value === $set->text("uart.$uart.role")
                && $this->parts->speaksOn($part, $uart)
                && abs($set->number("uart.$uart.baud", 115200) - $baud) < 0.02 * $baud
                && !$set->flag("uart.$uart.inverted")
            ) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return array{float, float, float, int, float}|null latitude and longitude in deg, height in m, satellites and HDOP; null without a
     * fix
     */
    public function fix(): ?array
    {
        $now = $this->pace->now();
        $plumb = self::plumb($this->state, $this->pace);
        $hdop = $this->isHeard() && $plumb->knows($now) ? $plumb->hdop($now) : null;
        if (null === $hdop) {
            return null;
        }
        $used = \count(array_filter($plumb->satellites($now), static fn ($s): bool => $s->used));

        return [...$plumb->place($now), 6.0, $used, $hdop];
    }

    /** Whether home could be set here. */
    public function isHome(): bool
    {
        $fix = $this->fix();

        return null !== $fix && [] === HomeCondition::unmet(SettingSet::of($this->state->running), 3, $fix[3], $fix[4]);
    }
}
