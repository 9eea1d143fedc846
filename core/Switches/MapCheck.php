<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

use Ortholex\Core\Craft\ArmedBy;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;

/** What is to be minded of a switch map: the whole truth of its table, looked through. */
final readonly class MapCheck
{
    /** An edge must lie so many times the jitter from a position. */
    private const JITTERS = 4.0;

    /** And never nearer than this, µs: a warm day moves a pot as far. */
    private const LEAST_US = 8.0;

    /** Of two that cannot hold together, the first is what holds. */
    private const CONTRADICT = [
        [Action::Return, Action::PositionHold],
        [Action::Return, Action::Angle],
        [Action::Return, Action::Horizon],
        [Action::PositionHold, Action::Horizon],
        [Action::Angle, Action::Horizon],
        [Action::SelfRight, Action::AirMode],
    ];

    /**
     * @param list<string> $sensors of the board
     * @param bool         $flown   whether it has flown before: then no self-levelling is its pilot's choice
     *
     * @return list<MapRemark> gravest first
     */
    public static function of(SwitchMap $map, SettingSet $set, array $sensors, bool $flown): array
    {
        $seen = self::seen($map);
        $byStick = ArmedBy::Stick === ArmedBy::in($set);

        return [
            ...self::arming($map, $set, $seen, $byStick),
            ...self::levers($map, $set),
            ...self::reached($map, $seen),
            ...self::contradictions($map, $seen),
            ...self::needs($map, $set, $sensors),
            ...self::edges($map),
            ...self::beeper($map, $seen),
            ...self::levelling($map, $seen, $flown),
        ];
    }

    /** @return list<array{array<int, int>, list<Action>}> positions by channel, and what is on in them */
    private static function seen(SwitchMap $map): array
    {
        $seen = [];
        foreach ($map->all() as $positions) {
            $seen[] = [$positions, $map->on($map->us($positions))];
        }

        return $seen;
    }

    /**
     * @param list<array{array<int, int>, list<Action>}> $seen
     *
     * @return list<MapRemark>
     */
    private static function arming(SwitchMap $map, SettingSet $set, array $seen, bool $byStick): array
    {
        $remarks = [];
        if ($map->onIn(Action::Arm)->isNever()) {
            $remarks[] = $byStick ? null : MapRemark::of(SwitchCode::NoArm, Action::Arm);
        } else {
            $remarks[] = self::oneFlick($map, $seen);
        }
        if ($set->flag('motors.still_when_armed')) {
            $remarks[] = MapRemark::of(SwitchCode::MotorsStill, Action::Arm);
        }

        return array_values(array_filter($remarks));
    }

    /**
     * Whether one flick of one lever from rest arms, where no position before it sounds the beeper or needs another lever.
     *
     * @param list<array{array<int, int>, list<Action>}> $seen
     */
    private static function oneFlick(SwitchMap $map, array $seen): ?MapRemark
    {
        $rest = [];
        foreach ($map->looked() as $lever) {
            $rest[$lever->channel] = 0;
        }
        if (\in_array(Action::Arm, $map->on($map->us($rest)), true)) {
            return MapRemark::of(SwitchCode::ArmedAtRest, Action::Arm);
        }
        foreach ($map->looked() as $lever) {
            $warned = false;
            foreach (array_keys($lever->positions) as $position) {
                $on = $map->on($map->us(array_replace($rest, [$lever->channel => $position])));
                if (\in_array(Action::Arm, $on, true)) {
                    if (!$warned) {
                        return MapRemark::of(SwitchCode::ArmInOneFlick, Action::Arm, $lever->channel);
                    }
                    break;
                }
                $warned = $warned || \in_array(Action::Beeper, $on, true);
            }
        }

        return null;
    }

    /** @return list<MapRemark> actions on channels that no lever was found on, or that a stick moves */
    private static function levers(SwitchMap $map, SettingSet $set): array
    {
        $remarks = [];
        foreach ($map->actions as $name => $on) {
            foreach ($on->channels() as $channel) {
                foreach (Channel::cases() as $stick) {
                    if ($set->whole("channel.$stick->value.number", $stick->usual()) === $channel) {
                        $remarks[] = MapRemark::of(SwitchCode::OnStickChannel, Action::from($name), $channel, stick: $stick);
                        continue 2;
                    }
                }
                if (!isset($map->switches[$channel])) {
                    $remarks[] = MapRemark::of(SwitchCode::NoSuchSwitch, Action::from($name), $channel);
                }
            }
        }

        return $remarks;
    }

    /**
     * @param list<array{array<int, int>, list<Action>}> $seen
     *
     * @return list<MapRemark>
     */
    private static function reached(SwitchMap $map, array $seen): array
    {
        $remarks = [];
        foreach ($map->actions as $name => $on) {
            $action = Action::from($name);
            // What looks at a lever that was not found is said as that.
            if ([] !== array_diff($on->channels(), array_keys($map->switches))) {
                continue;
            }
            $reached = array_filter($seen, static fn (array $one): bool => \in_array($action, $one[1], true));
            if ([] === $reached) {
                $remarks[] = MapRemark::of(SwitchCode::NeverReached, $action, $on->channels()[0]);
            }
        }

        return $remarks;
    }

    /**
     * @param list<array{array<int, int>, list<Action>}> $seen
     *
     * @return list<MapRemark>
     */
    private static function contradictions(SwitchMap $map, array $seen): array
    {
        $remarks = [];
        foreach (self::CONTRADICT as [$wins, $loses]) {
            foreach ($seen as [, $on]) {
                if (\in_array($wins, $on, true) && \in_array($loses, $on, true)) {
                    $remarks[] = MapRemark::of(SwitchCode::Contradict, $loses, $map->onIn($loses)->channels()[0] ?? null, wins: $wins);
                    break;
                }
            }
        }

        return $remarks;
    }

    /**
     * @param list<string> $sensors
     *
     * @return list<MapRemark>
     */
    private static function needs(SwitchMap $map, SettingSet $set, array $sensors): array
    {
        $remarks = [];
        foreach (array_keys($map->actions) as $name) {
            $need = Action::from($name)->missing($set, $sensors);
            if (null !== $need) {
                $remarks[] = MapRemark::of(SwitchCode::NeedUnmet, Action::from($name), need: $need);
            }
        }

        return $remarks;
    }

    /** @return list<MapRemark> */
    private static function edges(SwitchMap $map): array
    {
        $remarks = [];
        foreach ($map->actions as $name => $on) {
            foreach ($on->alternatives as $zones) {
                foreach ($zones as $zone) {
                    $lever = $map->switches[$zone->channel] ?? null;
                    foreach ($lever->positions ?? [] as $position) {
                        foreach ([$zone->fromUs, $zone->toUs] as $edge) {
                            $room = null === $edge ? \INF : abs($edge - $position);
                            if ($room < max(self::LEAST_US, self::JITTERS * ($lever->jitterUs ?? 0.0))) {
                                $remarks["$name/$zone->channel/$edge"] = MapRemark::of(
                                    SwitchCode::EdgeNear,
                                    Action::from($name),
                                    $zone->channel,
                                    edge: (float) $edge,
                                    position: $position,
                                );
                            }
                        }
                    }
                }
            }
        }

        return array_values($remarks);
    }

    /**
     * @param list<array{array<int, int>, list<Action>}> $seen
     *
     * @return list<MapRemark>
     */
    private static function beeper(SwitchMap $map, array $seen): array
    {
        if ($map->onIn(Action::Beeper)->isNever()) {
            return [MapRemark::of(SwitchCode::NoBeeper, Action::Beeper)];
        }
        $both = $alone = false;
        foreach ($seen as [, $on]) {
            if (\in_array(Action::Beeper, $on, true)) {
                \in_array(Action::Arm, $on, true) ? ($both = true) : ($alone = true);
            }
        }

        // One that sounds only while armed finds no craft in the grass.
        return $both && !$alone ? [MapRemark::of(SwitchCode::BeeperNeverDisarmed, Action::Beeper)] : [];
    }

    /**
     * @param list<array{array<int, int>, list<Action>}> $seen
     *
     * @return list<MapRemark>
     */
    private static function levelling(SwitchMap $map, array $seen, bool $flown): array
    {
        $levels = array_filter(Action::attitudes(), static fn (Action $a): bool => !$map->onIn($a)->isNever());

        return $flown || [] !== $levels ? [] : [MapRemark::of(SwitchCode::NoLevelling, Action::Angle)];
    }
}
