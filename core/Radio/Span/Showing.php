<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Fact\Fact;

/** Whether the stick that is asked for was shown by now: by which channel, or why what moved shows nothing; neither while it is moved. */
final readonly class Showing
{
    /** At rest is what stays within this, µs, … */
    private const REST_US = 40.0;

    /** … for so long, s: a sprung stick that is back, or a throttle that was pushed up. */
    private const REST_S = 0.08;

    /** Two that moved are called so once both rest for as long: one of them may only have begun. */
    private const CLASH_S = 0.6;

    /** A throttle that went down may be one that runs backwards, or a hand that fetches it from the top: it has so long to come up, s. */
    private const DOWN_S = 2.5;

    /** A stick that springs back is not held at its end for so long, s. */
    private const HELD_S = 2.5;

    /** @param Fact|null $why of OrderCode */
    private function __construct(public ?MovedStick $stick, public ?Fact $why)
    {
    }

    /** @param array<string, int> $taken channels that were shown before, by stick */
    public static function of(Channel $asked, StickHistory $history, array $taken): self
    {
        $moved = MovedStick::of($asked, $history);
        if (null !== $moved->rival) {
            $clash = self::allRest($history) ? Fact::of(OrderCode::TwoMoved, stick: $asked, rival: $moved->rival) : null;

            return new self(null, $clash);
        }
        $number = $moved->number;
        $us = null === $number ? [] : $history->channel($number);
        if (null === $number || [] === $us) {
            return new self(null, null);
        }
        $step = $history->step();
        if (Channel::Throttle === $asked) {
            // It stays where it was put, so that its end tells the way, wherever it began.
            $down = $us[\count($us) - 1] < (min($us) + max($us)) / 2;
            $shown = self::rests($us, $step, $down ? self::DOWN_S : self::REST_S);
            $moved = MovedStick::known($asked, $number, $down, $moved->margin);
        } else {
            $shown = self::rests($us, $step, self::REST_S) && abs($us[\count($us) - 1] - $us[0]) < self::REST_US;
        }
        $other = array_search($number, $taken, true);

        return match (true) {
            // It need not be back: the throttle, moved instead, stays.
            false !== $other && ($shown || self::rests($us, $step, self::CLASH_S)) => new self(
                null,
                Fact::of(OrderCode::SameChannel, stick: $asked, other: $other, number: $number),
            ),
            $shown => new self($moved, null),
            Channel::Throttle !== $asked && self::rests($us, $step, self::HELD_S) => new self(
                null,
                Fact::of(OrderCode::NotBack, stick: $asked, number: $number),
            ),
            default => new self(null, null),
        };
    }

    /** @param list<float> $us */
    private static function rests(array $us, float $stepS, float $seconds): bool
    {
        $count = max(3, (int) round($seconds / $stepS));
        $last = \array_slice($us, -$count);

        return \count($last) === $count && max($last) - min($last) < self::REST_US;
    }

    private static function allRest(StickHistory $history): bool
    {
        foreach ($history->channels as $us) {
            if (!self::rests($us, $history->step(), self::CLASH_S)) {
                return false;
            }
        }

        return true;
    }
}
