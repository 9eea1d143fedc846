<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Incident\Motion\Doubt;
use Ortholex\Core\Incident\Motion\Unexplained;
use Ortholex\Core\Incident\Saying\Kind;

/** What else makes a craft turn as nobody asked, each by its own signature. */
final readonly class Rivals
{
    /** Around a sign this is looked at. */
    private const BEFORE_S = 0.15;

    private const AFTER_S = 0.15;

    /** A glitch is over within this; it is at least so much, and of it no more than this share stays. */
    private const GLITCH_S = 0.012;

    private const GLITCH_DPS = 150.0;
    private const GLITCH_LEFT = 0.25;

    /** A knock is over within this, and holds this share of all that is unexplained around it. */
    private const KNOCK_BLOCKS = 4;

    private const KNOCK_SHARE = 0.55;

    /** How many times the usual it lies out. */
    private const KNOCK_TIMES = 6.0;

    /** Outputs at their ends for this share of the time. */
    private const AT_ENDS = 0.3;

    private const END = 0.99;

    /** Least output as the flight knows it, and a little. */
    private const FLOOR_PCT = 1.0;

    /** Throttle dropped by this much within this time before. */
    private const CHOP_PCT = 15.0;

    private const CHOP_S = 0.9;

    /** Sticks moved this fast, share of the log's own most, within this time. */
    private const SWIFT_DPS = 250.0;

    private const SWIFT_S = 0.15;

    public static function of(Suspicion $s, ?Unexplained $off, ?Doubt $doubt): Kind
    {
        $run = $s->run;
        $from = max(0, $s->from - $run->nearestSteps(self::BEFORE_S));
        $to = min($run->count() - 1, $s->to + $run->nearestSteps(self::AFTER_S));
        if (self::comesAndGoes($s, $run->nearestSteps(self::GLITCH_S))) {
            return Kind::SensorGlitch;
        }
        if (null !== $off && null !== $doubt && self::isKnock($off, $doubt, $from, $to)) {
            return Kind::Hit;
        }
        if (self::atEnds($s, $from, $to) >= self::AT_ENDS) {
            return Kind::AskedForMore;
        }
        if (self::wasChopped($s)) {
            return Kind::PropWash;
        }

        return self::wasSwift($s) ? Kind::PilotsOwn : Kind::CannotTell;
    }

    /** The rate was there for a moment and back: no body does that. */
    private static function comesAndGoes(Suspicion $s, int $most): bool
    {
        if ($s->to - $s->from > $most) {
            return false;
        }
        foreach ([0, 1, 2] as $axis) {
            $w = $s->run->rate[$axis];
            $before = $w[max(0, $s->from - 2 * $most)];
            $after = $w[min($s->run->count() - 1, $s->to + 2 * $most)];
            $part = \array_slice($w, $s->from, $s->to - $s->from + 1);
            $peak = max([0.0, ...array_map(static fn (float $v): float => abs($v - $before), $part)]);
            if ($peak > self::GLITCH_DPS && abs($after - $before) < self::GLITCH_LEFT * $peak) {
                return true;
            }
        }

        return false;
    }

    private static function isKnock(Unexplained $one, Doubt $doubt, int $from, int $to): bool
    {
        $energy = self::energy($one, $doubt, $from, $to);
        $all = array_sum($energy);
        $most = 0.0;
        for ($b = 0, $n = \count($energy); $b < $n; ++$b) {
            $most = max($most, array_sum(\array_slice($energy, $b, self::KNOCK_BLOCKS)));
        }

        return $all > 0 && max([0.0, ...$energy]) > self::KNOCK_TIMES ** 2 && $most > self::KNOCK_SHARE * $all;
    }

    /** Step at which the knock came. */
    public static function knock(Suspicion $s, Unexplained $one, Doubt $doubt): int
    {
        $from = max(0, $s->from - $s->run->nearestSteps(self::BEFORE_S));
        $energy = self::energy($one, $doubt, $from, min($s->run->count() - 1, $s->to + $s->run->nearestSteps(self::AFTER_S)));
        $block = [] === $energy ? 0 : (int) array_search(max($energy), $energy, true);

        return max(0, (intdiv($from, $one->blocks->size) + $block - 1) * $one->blocks->size);
    }

    /** @return list<float> squares of what is unexplained over what is usual, block by block */
    private static function energy(Unexplained $one, Doubt $doubt, int $from, int $to): array
    {
        $size = $one->blocks->size;
        $energy = [];
        $last = min($one->blocks->count() - 1, intdiv($to, $size));
        for ($b = intdiv($from, $size); $b <= $last; ++$b) {
            $sum = 0.0;
            foreach ([0, 1, 2] as $a) {
                $sum += ($one->off[$a][$b] / $doubt->usual($a, $one->liveliness[$a][$b], $one->washed[$b])) ** 2;
            }
            $energy[] = $sum;
        }

        return $energy;
    }

    private static function atEnds(Suspicion $s, int $from, int $to): float
    {
        $hits = 0;
        $least = array_map(static fn (array $output): float => [] === $output ? 100.0 : min($output), $s->run->outputs);
        $floor = self::FLOOR_PCT + min([100.0, ...$least]);
        $end = self::END * $s->run->topPct;
        for ($i = $from; $i <= $to; ++$i) {
            foreach ($s->run->outputs as $output) {
                if ($output[$i] >= $end || $output[$i] <= $floor) {
                    ++$hits;
                    break;
                }
            }
        }

        return $hits / max(1, $to - $from + 1);
    }

    private static function wasChopped(Suspicion $s): bool
    {
        $throttle = $s->run->throttle;
        if ([] === $throttle) {
            return false;
        }
        $before = \array_slice($throttle, max(0, $s->from - $s->run->nearestSteps(self::CHOP_S)), $s->run->nearestSteps(self::CHOP_S));

        return [] !== $before && max($before) - min([...$before, $throttle[$s->from]]) > self::CHOP_PCT;
    }

    private static function wasSwift(Suspicion $s): bool
    {
        $from = max(0, $s->from - $s->run->nearestSteps(self::SWIFT_S));
        foreach ($s->run->set as $set) {
            $part = \array_slice($set, $from, $s->to - $from + 1);
            if ([] !== $part && max($part) - min($part) > self::SWIFT_DPS) {
                return true;
            }
        }

        return false;
    }
}
