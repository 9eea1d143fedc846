<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Pilot;

use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\SwitchMap;

/** Which levers a pilot who knows the craft flicks, so that it is disarmed, and then armed and levelling where it can. */
final readonly class Levers
{
    private const FIRST = 4;

    /** What a pilot does not want on in an ordinary flight. */
    private const UNWANTED = [Action::Beeper, Action::SelfRight, Action::Return, Action::PositionHold, Action::TestFeel, Action::GainSetB];

    /**
     * @param list<float>  $disarmed all controls
     * @param list<float>  $armed
     * @param list<Action> $on       when armed
     */
    private function __construct(public array $disarmed, public array $armed, public array $on)
    {
    }

    /** @param list<Action> $wanted that are to be on besides arm, where the levers can */
    public static function of(Road $road, SettingSet $set, array $wanted): self
    {
        $map = SwitchMap::of($set, []);
        $best = [null, null];
        $cost = [\PHP_INT_MAX, \PHP_INT_MAX];
        foreach (self::all($road->controls()) as [$controls, $moved]) {
            $on = $map->on($road->channels($controls));
            $arms = \in_array(Action::Arm, $on, true) ? 1 : 0;
            $price = $moved;
            foreach ($wanted as $action) {
                $price += \in_array($action, $on, true) ? 0 : 1000;
            }
            foreach (self::UNWANTED as $action) {
                $price += \in_array($action, $on, true) && !\in_array($action, $wanted, true) ? 100 : 0;
            }
            // Acro is what is left when nothing levels.
            $price += [] === $wanted ? 50 * \count(array_filter($on, static fn (Action $a): bool => $a->levels())) : 0;
            if ($price < $cost[$arms]) {
                [$cost[$arms], $best[$arms]] = [$price, [$controls, $on]];
            }
        }
        $off = $best[0][0] ?? $road->controls();

        return new self($off, $best[1][0] ?? $off, $best[1][1] ?? []);
    }

    /**
     * @param list<float> $from
     *
     * @return \Generator<array{list<float>, int}> controls, and how many levers were moved
     */
    private static function all(array $from): \Generator
    {
        $states = array_product(RadioState::LEVERS);
        for ($n = 0; $n < $states; ++$n) {
            $controls = $from;
            $rest = $n;
            $moved = 0;
            foreach (RadioState::LEVERS as $i => $positions) {
                $at = -1 + (2 * ($rest % $positions)) / ($positions - 1);
                $rest = intdiv($rest, $positions);
                $moved += $controls[self::FIRST + $i] === (float) $at ? 0 : 1;
                $controls[self::FIRST + $i] = (float) $at;
            }
            yield [array_values($controls), $moved];
        }
    }
}
