<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Pilot;

use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Switches\Action;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** A scripted flight and the pilot who flies it: stick positions at the rate of the receiver's frames. */
final readonly class FlightCard
{
    /** Throttle that the climb begins at: less would let it fall. */
    private const LOWEST = 0.12;

    /**
     * @param list<array{float, float, float, float}> $frames roll, pitch, yaw in −1..1 and throttle in 0..1
     * @param list<array{float, float, float, float}> $us     what a board gets of them, µs
     * @param list<Action>                            $on     what the levers turn on meanwhile
     */
    private function __construct(public array $frames, public array $us, public array $on = [])
    {
    }

    /** The same, flown with this radio, its levers as they stand. */
    public function through(Road $road): self
    {
        return new self($this->frames, $road->frames($this->frames), $road->on());
    }

    public static function fly(Card $card, float $seconds, float $frameHz, float $hoverThrottle, int $seed): self
    {
        $dice = new Randomizer(new Xoshiro256StarStar($seed));
        $u = static fn (): float => $dice->getInt(-1_000_000, 1_000_000) / 1e6;
        $plan = match ($card) {
            Card::MixedSticks => self::mixed($seconds, $hoverThrottle, $u),
            Card::HoverAndClimb => self::climb($seconds, $hoverThrottle, $u),
            Card::FlipSet => self::flips($seconds, $hoverThrottle, $u),
            Card::Cruise => self::cruise($seconds, $hoverThrottle, $u),
            Card::Maiden, Card::LinkLost, Card::Survey => throw new \LogicException(
                'It is flown by eyes and thumbs, not by a script; see Sortie.',
            ),
        };

        $frames = self::byHand($plan, $seconds, $frameHz, $u);
        $sound = Road::of(new RadioState(), Rill::C, SettingSet::none());

        return new self($frames, $sound->frames($frames));
    }

    /**
     * Large random moves of roll and pitch together, without long pauses.
     *
     * @param \Closure(): float $u
     *
     * @return list<list<array{float, float, float}>> per stick: from time on, this target, reached in so many seconds
     */
    private static function mixed(float $seconds, float $hover, \Closure $u): array
    {
        $plan = [[], [], [], []];
        foreach ([0, 1, 2] as $stick) {
            for ($t = 1.5 + 0.1 * $stick; $t < $seconds - 1.5; $t += 0.28 + 0.2 * abs($u())) {
                $size = 2 === $stick ? 0.35 : 0.78;
                $plan[$stick][] = [$t, $size * $u(), 0.07 + 0.05 * abs($u())];
            }
            $plan[$stick][] = [$seconds - 1.4, 0.0, 0.2];
        }
        for ($t = 1.0; $t < $seconds - 1; $t += 1.1 + 0.5 * $u()) {
            $plan[3][] = [$t, $hover * (1.05 + 0.35 * $u()), 0.4];
        }

        return self::upAndDown($plan, $seconds, $hover);
    }

    /**
     * @param \Closure(): float $u
     *
     * @return list<list<array{float, float, float}>>
     */
    private static function climb(float $seconds, float $hover, \Closure $u): array
    {
        $plan = [[], [], [], []];
        foreach ([0, 1, 2] as $stick) {
            for ($t = 1.5; $t < $seconds - 1.5; $t += 0.7 + 0.3 * $u()) {
                $plan[$stick][] = [$t, 0.06 * $u(), 0.2];
            }
        }
        foreach ([8.0, 10.0, 12.0] as $k => $t) {
            if ($t + 2 < $seconds) {
                $plan[$k % 2][] = [$t, 0.95, 0.12];
                $plan[$k % 2][] = [$t + 0.65, 0.0, 0.12];
            }
        }
        // One slow even climb through every level of throttle, full for a second, and smoothly down again.
        $rise = $seconds - 21.0;
        if ($rise > 3) {
            $plan[3][] = [14.0, self::LOWEST, 0.8];
            $steps = (int) round((1 - self::LOWEST) * 100);
            for ($k = 1; $k <= $steps; ++$k) {
                $plan[3][] = [14.8 + ($rise * $k) / $steps, self::LOWEST + $k / 100, $rise / $steps];
            }
            $plan[3][] = [$seconds - 4.6, self::LOWEST, 1.8];
            $plan[3][] = [$seconds - 2.4, $hover, 0.8];
        }

        return self::upAndDown($plan, $seconds, $hover);
    }

    /**
     * @param \Closure(): float $u
     *
     * @return list<list<array{float, float, float}>>
     */
    private static function flips(float $seconds, float $hover, \Closure $u): array
    {
        $roll = $pitch = $throttle = [];
        $number = 0;
        for ($t = 2.0; $t < $seconds - 3; $t += 1.6) {
            $way = $u() < 0 ? -1.0 : 1.0;
            $moves = [[$t, $way, 0.1], [$t + 0.6, 0.0, 0.1]];
            if (0 === $number++ % 2) {
                array_push($roll, ...$moves);
            } else {
                array_push($pitch, ...$moves);
            }
            array_push($throttle, [$t - 0.3, $hover * 1.5, 0.15], [$t + 0.1, $hover * 0.5, 0.1], [$t + 0.7, $hover * 1.2, 0.15]);
        }

        return self::upAndDown([$roll, $pitch, [], $throttle], $seconds, $hover);
    }

    /**
     * @param \Closure(): float $u
     *
     * @return list<list<array{float, float, float}>>
     */
    private static function cruise(float $seconds, float $hover, \Closure $u): array
    {
        $plan = [[], [], [], []];
        foreach ([0, 1, 2] as $stick) {
            for ($t = 1.5; $t < $seconds - 1.5; $t += 1.4 + 0.6 * $u()) {
                $plan[$stick][] = [$t, 0.22 * $u(), 0.5];
            }
        }
        for ($t = 2.0; $t < $seconds - 2; $t += 3.0) {
            $plan[3][] = [$t, $hover * (1.15 + 0.15 * $u()), 1.0];
        }

        return self::upAndDown($plan, $seconds, $hover);
    }

    /**
     * @param list<list<array{float, float, float}>> $plan
     *
     * @return list<list<array{float, float, float}>>
     */
    private static function upAndDown(array $plan, float $seconds, float $hover): array
    {
        array_unshift($plan[3], [0.0, 0.0, 0.01], [0.3, $hover, 0.5]);
        $plan[3][] = [$seconds - 1.0, 0.0, 0.8];

        return $plan;
    }

    /**
     * Hands move between targets with least jerk, and tremble a little.
     *
     * @param list<list<array{float, float, float}>> $plan
     * @param \Closure(): float                      $u
     *
     * @return list<array{float, float, float, float}>
     */
    private static function byHand(array $plan, float $seconds, float $frameHz, \Closure $u): array
    {
        $sticks = [];
        foreach ($plan as $moves) {
            usort($moves, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
            $at = 0.0;
            $from = 0.0;
            $next = 0;
            $move = [0.0, 0.0, 0.01];
            $track = [];
            for ($i = 0, $n = (int) ceil($seconds * $frameHz) + 2; $i < $n; ++$i) {
                $t = $i / $frameHz;
                while (isset($moves[$next]) && $t >= $moves[$next][0]) {
                    $from = $at;
                    $move = $moves[$next++];
                }
                $s = max(0.0, min(1.0, ($t - $move[0]) / $move[2]));
                $at = $from + ($move[1] - $from) * $s * $s * $s * (10 + $s * (6 * $s - 15));
                $track[] = $at;
            }
            $sticks[] = $track;
        }
        $frames = [];
        foreach ($sticks[0] as $i => $roll) {
            $frames[] = [
                max(-1.0, min(1.0, $roll + 0.002 * $u())),
                max(-1.0, min(1.0, $sticks[1][$i] + 0.002 * $u())),
                max(-1.0, min(1.0, $sticks[2][$i] + 0.002 * $u())),
                max(0.0, min(1.0, $sticks[3][$i])),
            ];
        }

        return $frames;
    }
}
