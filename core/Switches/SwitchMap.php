<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

use Ortholex\Core\Craft\SettingSet;

/** Which action is on in which position: the actions of a craft and the levers of its radio. */
final readonly class SwitchMap
{
    /** Beyond so many states of all levers together, each is looked at alone. */
    public const MOST_STATES = 2000;

    /**
     * @param array<string, OnIn>      $actions  by action; those that are never on are left out
     * @param array<int, FoundSwitch>  $switches by channel
     */
    private function __construct(public array $actions, public array $switches)
    {
    }

    /**
     * @param list<FoundSwitch> $switches
     *
     * @throws ZoneError
     */
    public static function of(SettingSet $set, array $switches): self
    {
        $actions = $by = [];
        foreach (Action::cases() as $action) {
            $on = OnIn::parse($set->text($action->setting()));
            if (!$on->isNever()) {
                $actions[$action->value] = $on;
            }
        }
        foreach ($switches as $switch) {
            $by[$switch->channel] = $switch;
        }
        ksort($by);

        return new self($actions, $by);
    }

    /**
     * @param array<int, float> $us by channel
     *
     * @return list<Action> whose zones hold
     */
    public function on(array $us): array
    {
        return array_values(array_filter(Action::cases(), fn (Action $a): bool => $this->onIn($a)->holds($us)));
    }

    public function onIn(Action $action): OnIn
    {
        return $this->actions[$action->value] ?? OnIn::never();
    }

    /** The same map with one action on otherwise. */
    public function having(Action $action, OnIn $on): self
    {
        return new self(array_replace($this->actions, [$action->value => $on]), $this->switches);
    }

    /** How many states all levers that actions look at have together. */
    public function states(): int
    {
        $states = 1;
        foreach ($this->looked() as $switch) {
            $states *= \count($switch->positions);
            if ($states > self::MOST_STATES) {
                break;
            }
        }

        return $states;
    }

    /** @return list<FoundSwitch> those that any action looks at */
    public function looked(): array
    {
        $channels = [];
        foreach ($this->actions as $on) {
            foreach ($on->channels() as $channel) {
                $channels[$channel] = true;
            }
        }

        return array_values(array_intersect_key($this->switches, $channels));
    }

    /**
     * Every state of the levers, as far as they are looked at together; position by channel.
     *
     * @return iterable<array<int, int>>
     */
    public function all(): iterable
    {
        $levers = $this->looked();
        if ($this->states() <= self::MOST_STATES) {
            yield from self::product($levers, []);

            return;
        }
        // Too many together: each lever through its positions, and any two of them, the others at rest.
        $rest = array_fill_keys(array_map(static fn (FoundSwitch $s): int => $s->channel, $levers), 0);
        foreach ($levers as $i => $a) {
            foreach (\array_slice($levers, $i + 1) as $b) {
                foreach (array_keys($a->positions) as $p) {
                    foreach (array_keys($b->positions) as $q) {
                        yield array_replace($rest, [$a->channel => $p, $b->channel => $q]);
                    }
                }
            }
        }
    }

    /**
     * @param array<int, int> $positions by channel
     *
     * @return array<int, float> µs by channel
     */
    public function us(array $positions): array
    {
        $us = [];
        foreach ($positions as $channel => $position) {
            $us[$channel] = $this->switches[$channel]->positions[$position];
        }

        return $us;
    }

    /**
     * Whether a lever's position turns an action on: always, never, or together with others.
     *
     * @return array{Cell, list<Zone>} how, and the zones of other channels that it needs
     */
    public function cell(Action $action, int $channel, int $position): array
    {
        $us = $this->switches[$channel]->positions[$position];
        $with = null;
        foreach ($this->onIn($action)->alternatives as $zones) {
            $here = $others = [];
            foreach ($zones as $zone) {
                $zone->channel === $channel ? ($here[] = $zone) : ($others[] = $zone);
            }
            $holds = [] !== $here && [] === array_filter($here, static fn (Zone $z): bool => !$z->holds($us));
            if ($holds && [] === $others) {
                return [Cell::On, []];
            }
            if ($holds) {
                $with ??= $others;
            }
        }

        return null === $with ? [Cell::Off, []] : [Cell::Together, $with];
    }

    /**
     * The same action with one position of a lever turned on or off for it.
     *
     * @param list<Zone> $together zones of other channels that must hold with it
     */
    public function with(Action $action, int $channel, int $position, bool $on, array $together = []): OnIn
    {
        $switch = $this->switches[$channel];
        $kept = $alone = [];
        foreach ($this->onIn($action)->alternatives as $zones) {
            $mine = array_values(array_filter($zones, static fn (Zone $z): bool => $z->channel === $channel));
            if ([] === $mine) {
                $kept[] = $zones;
                continue;
            }
            // A zone that spans several positions is cut into theirs, so that one of them can be taken out.
            $others = array_values(array_filter($zones, static fn (Zone $z): bool => $z->channel !== $channel));
            foreach ($switch->positions as $i => $us) {
                if ($i !== $position && [] === array_filter($mine, static fn (Zone $z): bool => !$z->holds($us))) {
                    $alone[] = [$i, $others];
                }
            }
        }
        if ($on) {
            $alone[] = [$position, $together];
        }

        return OnIn::of([...$kept, ...self::joined($switch, $alone)]);
    }

    /**
     * Neighbouring positions under the same conditions make one zone.
     *
     * @param list<array{int, list<Zone>}> $alone position, and the zones it needs with it
     *
     * @return list<list<Zone>>
     */
    private static function joined(FoundSwitch $switch, array $alone): array
    {
        $by = [];
        foreach ($alone as [$position, $others]) {
            $key = implode(' ', array_map(static fn (Zone $z): string => $z->text(), $others));
            $by[$key]['others'] = $others;
            $by[$key]['at'][$position] = true;
        }
        $out = [];
        foreach ($by as $one) {
            $from = null;
            for ($i = 0, $n = \count($switch->positions); $i <= $n; ++$i) {
                if (isset($one['at'][$i])) {
                    $from ??= $i;
                } elseif (null !== $from) {
                    $out[] = [Zone::of($switch->channel, $switch->zone($from)->fromUs, $switch->zone($i - 1)->toUs), ...$one['others']];
                    $from = null;
                }
            }
        }

        return $out;
    }

    /**
     * @param list<FoundSwitch> $levers
     * @param array<int, int>   $so
     *
     * @return iterable<array<int, int>>
     */
    private static function product(array $levers, array $so): iterable
    {
        if ([] === $levers) {
            yield $so;

            return;
        }
        $first = array_shift($levers);
        foreach (array_keys($first->positions) as $position) {
            yield from self::product($levers, $so + [$first->channel => $position]);
        }
    }
}
