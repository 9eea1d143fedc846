<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Incident\Motion\Doubt;
use Ortholex\Core\Incident\Motion\Unexplained;
use Ortholex\Core\Signal\Statistics;

/**
 * Stretches in which one motor pushes no more, or only half: for each motor a cumulative likelihood ratio (Page 1954) of that
 * against “all is well”, out of the motion and, where they were logged, the speeds; both can speak for it and against it.
 *
 * How much such a ratio must reach follows from the log itself: the same ratio is run for what cannot be, a motor that pushes more
 * than it is asked to. What the model gets wrong in that direction it gets wrong in the other.
 */
final readonly class MotorLosses
{
    /** Shares of its thrust that a motor may have left. */
    private const SHARES = [0.0, 0.5];

    /** What is left is told to this. */
    private const FINE_SHARES = [0.0, 0.25, 0.5, 0.7];

    private const LEAST_SCORE = 9.0;

    /** That a second motor fails in the same flight, apart from the first, is so much less likely. */
    private const SECOND_MOTOR = 2.0;

    /** No motor gives half of its thrust for less than this and then all of it. */
    private const LEAST_WEAK_S = 0.9;

    /** A loss must tell that much in this time. */
    private const TOLD_S = 3.0;

    private const LEAST_SUM = 3.0;

    /** Over what the impossible reached. */
    private const OVER_IMPOSSIBLE = 1.5;

    /** Where its speed acquits a motor, its prop may still be at fault: then so much more is asked. */
    private const WITHOUT_SPEED = 2.0;

    /** The best motor over the second, as a share of the best. */
    private const LEAST_LEAD = 0.2;

    /** Of what an unknown push of any direction would explain, the loss must explain this share. */
    private const LEAST_OF_PUSH = 0.65;

    private const LEAST_ALONE = 0.6;

    /** Blocks that make up most of a knock; without them a loss must still stand by half. */
    private const KNOCK_BLOCKS = 5;

    /** So many of its lags a rotor takes to regain its speed. */
    private const REGAINED = 1.5;

    private const LEAST_LOSS_S = 0.12;

    /** Early on the loss is purest. */
    private const PURE_S = 0.5;

    /** The impossible is not looked for so near a loss: what comes of it looks like anything, s. */
    private const APART_BEFORE_S = 0.5;

    private const APART_AFTER_S = 4.0;

    /** A rotor this slow tells whether its push went at once, by this share more than it can. */
    private const SLOW_ROTOR_S = 0.035;

    private const SUDDENLY = 0.35;
    private const SUDDEN_S = 0.35;

    /** Later, a loss is at least so much of what it was at first; a knock is over. */
    private const GOES_ON = 0.9;

    private const TAKE_OFF_S = 0.3;

    /** Of its usual thrust. */
    private const LEAST_THRUST = 0.12;

    private const ENOUGH_BEFORE_S = 8.0;

    /** Yaw, which gusts and the pilot turn too, counts by this. */
    private const YAW = 0.4;

    private const FREEDOM = 4.0;

    /**
     * @param list<Unexplained>        $all    of each run
     * @param list<SpeedEvidence|null> $speeds of each run
     *
     * @return list<Suspicion> in order of likelihood
     */
    public static function of(array $all, Doubt $doubt, array $speeds): array
    {
        $usual = array_map($doubt->over(...), $all);
        [$candidates, $impossible] = self::candidates($all, $usual, $doubt, $speeds);
        $found = $taken = [];
        foreach ($candidates as $c) {
            if ($c->score < self::LEAST_SCORE) {
                break;
            }
            $one = $all[$c->run];
            if (self::isTaken($taken, $c->run, $c->from, $c->to, $one)) {
                continue;
            }
            $near = [...$taken, [$c->run, $c->from, $c->to]];
            // What the model gets wrong all along adds up as well: who is lost for long says so all the time.
            $other = [] !== array_filter($found, static fn (Suspicion $s): bool => $s->motor !== $c->motor);
            $lasts = ($c->to - $c->from) * $one->blocks->seconds();
            $needed = self::LEAST_SCORE * ($other ? self::SECOND_MOTOR : 1.0) * max(1.0, $lasts / self::TOLD_S);
            foreach ($impossible as [$run, $from, $to, $score]) {
                if (
                    self::OVER_IMPOSSIBLE * $score > $needed
                    && !self::isTaken($near, $run, $from, $to, $all[$run])
                    && !self::isAfterwards($run, $from, $c, $all)
                ) {
                    $needed = self::OVER_IMPOSSIBLE * $score;
                }
            }
            $suspicion = $c->score < $needed ? null : self::judged($one, $usual[$c->run], $doubt, $speeds[$c->run], $c);
            if (null !== $suspicion) {
                $found[] = $suspicion;
                $taken = $near;
            }
        }

        return $found;
    }

    /**
     * @param list<Unexplained>        $all
     * @param list<list<list<float>>>  $usual  of each run, as Doubt has it over it
     * @param list<SpeedEvidence|null> $speeds
     *
     * @return array{list<LossCandidate>, list<array{int, int, int, float}>} the likeliest first; and what cannot be: run, first and last
     *                                                                      block, what it reached
     */
    private static function candidates(array $all, array $usual, Doubt $doubt, array $speeds): array
    {
        $candidates = $impossible = [];
        foreach ($all as $k => $one) {
            $worth = array_map($doubt->worth(...), $one->washed);
            $well = self::well($one, $usual[$k]);
            // With its speed as evidence; and, with more asked, without, as a prop can fail on a motor that turns as it should.
            $ways = null === $speeds[$k] ? [[null, 1.0]] : [[$speeds[$k], 1.0], [null, self::WITHOUT_SPEED]];
            foreach (array_keys($one->thrust) as $m) {
                $pushes = self::pushes($one, $m);
                foreach (self::SHARES as $share) {
                    $gone = self::ratios($one, $usual[$k], $well, $doubt, $m, $share, 1.0);
                    $more = self::ratios($one, $usual[$k], $well, $doubt, $m, $share, -1.0);
                    foreach ($ways as [$speed, $needed]) {
                        $row = self::evidence($gone, $pushes, $speed, $m, $share, 1.0);
                        foreach (self::peaks($row, $worth) as [$from, $to, $score]) {
                            $early = \array_slice($row, $from, 1 + $one->blocks->blocks(self::PURE_S));
                            $candidates[] = new LossCandidate($k, $m, $share, $from, $to, $score / $needed, $early, $speed);
                        }
                        foreach (self::peaks(self::evidence($more, $pushes, $speed, $m, $share, -1.0), $worth) as [$from, $to, $score]) {
                            $impossible[] = [$k, $from, $to, $score / $needed];
                        }
                    }
                }
            }
        }
        usort($candidates, static fn (LossCandidate $p, LossCandidate $q): int => $q->score <=> $p->score);

        return [$candidates, $impossible];
    }

    /**
     * @param list<array{int, int, int}> $taken run, first and last block
     */
    private static function isTaken(array $taken, int $run, int $from, int $to, Unexplained $one): bool
    {
        foreach ($taken as [$k, $first, $last]) {
            if (
                $k === $run
                && $to >= $first - $one->blocks->blocks(self::APART_BEFORE_S)
                && $from <= $last + $one->blocks->blocks(self::APART_AFTER_S)
            ) {
                return true;
            }
        }

        return false;
    }

    /**
     * A craft that lost a motor may do anything until the log ends: where enough was flown before, only that counts.
     *
     * @param int               $run  of what cannot be
     * @param int               $from its first block
     * @param list<Unexplained> $all
     */
    private static function isAfterwards(int $run, int $from, LossCandidate $c, array $all): bool
    {
        $before = $c->from;
        for ($k = 0; $k < $c->run; ++$k) {
            $before += $all[$k]->blocks->count();
        }

        return $before * $all[$c->run]->blocks->seconds() >= self::ENOUGH_BEFORE_S
            && ($run > $c->run || ($run === $c->run && $from > $c->from));
    }

    /**
     * While it takes off, the lags are not known; and a motor that is let go, as at landing, has nothing to lose.
     *
     * @return list<bool> by block
     */
    private static function pushes(Unexplained $one, int $m): array
    {
        $off = $one->blocks->blocks(self::TAKE_OFF_S);
        $least = self::LEAST_THRUST * ([] === $one->thrust[$m] ? 0.0 : Statistics::median($one->thrust[$m]));
        $pushes = [];
        foreach ($one->thrust[$m] as $b => $thrust) {
            $pushes[] = $b >= $off && $thrust >= $least;
        }

        return $pushes;
    }

    /**
     * @param list<float> $ratios of the motion
     * @param list<bool>  $pushes whether the motor has anything to lose
     *
     * @return list<float> of the motion, and of the speed where it is asked
     */
    private static function evidence(array $ratios, array $pushes, ?SpeedEvidence $speed, int $m, float $share, float $sign): array
    {
        $said = $speed?->along($m, $share, $sign) ?? [];
        $out = [];
        foreach ($ratios as $b => $v) {
            $out[] = $pushes[$b] ? $v + ($said[$b] ?? 0.0) : 0.0;
        }

        return $out;
    }

    /**
     * How far the motion is off if all is well, squared, in the measure of what is usual.
     *
     * @param list<list<float>> $usual by axis and block
     *
     * @return array<int, float> by block
     */
    private static function well(Unexplained $one, array $usual, int $from = 0, int $to = \PHP_INT_MAX): array
    {
        $out = [];
        for ($b = $from, $end = min($to, $one->blocks->count() - 1); $b <= $end; ++$b) {
            $sum = 0.0;
            for ($a = 0; $a < 3; ++$a) {
                $z = $one->off[$a][$b] / $usual[$a][$b];
                $sum += (2 === $a ? self::YAW : 1.0) * $z * $z;
            }
            $out[$b] = $sum;
        }

        return $out;
    }

    /**
     * Log-likelihood ratio, block by block, of a motor giving this share of its thrust; or, turned about, of it giving as much more.
     *
     * @param list<list<float>> $usual by axis and block
     * @param array<int, float> $well  by block
     * @param float             $sign  1, or −1 for turned about
     *
     * @return list<float>
     */
    private static function ratios(
        Unexplained $one,
        array $usual,
        array $well,
        Doubt $doubt,
        int $motor,
        float $share,
        float $sign,
        int $from = 0,
        int $to = \PHP_INT_MAX,
    ): array {
        $out = [];
        [$off, $washed] = [$one->off, $one->washed];
        [$worth, $worthWashed] = [$doubt->worth(false), $doubt->worth(true)];
        $lost = 1 - $share;
        $pushes = $one->thrust[$motor];
        $effect = array_column($one->model->effectiveness, $motor);
        for ($b = $from, $end = min($to, \count($pushes) - 1); $b <= $end; ++$b) {
            $bad = 0.0;
            $gone = $sign * $lost * $pushes[$b];
            for ($a = 0; $a < 3; ++$a) {
                $left = ($off[$a][$b] + $gone * $effect[$a]) / $usual[$a][$b];
                $bad += (2 === $a ? self::YAW : 1.0) * $left * $left;
            }
            $told = (self::FREEDOM + 3) / 2 * log((1 + $well[$b] / self::FREEDOM) / (1 + $bad / self::FREEDOM));
            $out[] = ($washed[$b] ? $worthWashed : $worth) * $told;
        }

        return $out;
    }

    /**
     * Where a sum of ratios grew, begun anew whenever it fell to nothing. However alike blocks are that follow one another, together
     * they say at least what one of them says.
     *
     * @param list<float> $row
     * @param list<float> $worth of each block
     *
     * @return list<array{int, int, float}> first and last block, and what it reached
     */
    private static function peaks(array $row, array $worth): array
    {
        $found = [];
        $score = $peak = 0.0;
        $since = $at = 0;
        $row[] = -\INF;
        foreach ($row as $b => $v) {
            $score += $v;
            if ($score > $peak) {
                $peak = $score;
                $at = $b;
            }
            $fallen = $peak > 2 * self::LEAST_SUM ? 0.5 * $peak : self::LEAST_SUM;
            if ($score > 0.0 && $score > $peak - $fallen) {
                continue;
            }
            if ($peak >= self::LEAST_SUM) {
                $alone = array_sum(\array_slice($worth, $since, $at - $since + 1));
                $found[] = [$since, $at, $alone < 1.0 ? 2.0 * $peak : $peak * (1.0 + 1.0 / $alone)];
            }
            $score = $peak = 0.0;
            $since = $at = $b + 1;
        }

        return $found;
    }

    /** @param list<list<float>> $usual by axis and block */
    private static function judged(Unexplained $one, array $usual, Doubt $doubt, ?SpeedEvidence $speed, LossCandidate $c): ?Suspicion
    {
        [$m, $from, $to, $share] = [$c->motor, $c->from, $c->to, $c->share];
        $blocks = $one->blocks;
        if ($to - $from + 1 < ($share > 0.0 ? self::LEAST_WEAK_S : self::LEAST_LOSS_S) / $blocks->seconds()) {
            return null;
        }
        $early = min($to, $from + $blocks->blocks(self::PURE_S));
        $part = \array_slice($c->early, 0, $early - $from + 1);
        $fell = $speed?->fellBehind($m, $from, $early) ?? false;
        // A knock is over at once, but for the speed that it took from a rotor; a loss stands.
        $knock = $fell ? self::KNOCK_BLOCKS : max(self::KNOCK_BLOCKS, $blocks->blocks(self::REGAINED * $one->model->law->upS));
        $sorted = $part;
        rsort($sorted);
        if (array_sum($sorted) - array_sum(\array_slice($sorted, 0, $knock)) < 0.5 * self::LEAST_SUM) {
            return null;
        }
        // Whose speed is seen to fall away needs no guess at how suddenly its push went.
        $brief = !$fell && $to - $from + 1 < self::SUDDEN_S / $blocks->seconds();
        if ($brief && self::isSudden($one, $doubt, $m, $from, $to, $share)) {
            return null;
        }
        $scores = [];
        $well = self::well($one, $usual, $from, $early);
        foreach (array_keys($one->thrust) as $other) {
            $best = -\INF;
            foreach (self::FINE_SHARES as $s) {
                $sum = array_sum(self::ratios($one, $usual, $well, $doubt, $other, $s, 1.0, $from, $early));
                $sum += array_sum($c->speed?->along($other, $s, 1.0, $from, $early) ?? []);
                $best = max($best, $sum);
            }
            $scores[$other] = $best;
        }
        $second = max([0.0, ...array_diff_key($scores, [$m => true])]);
        if ($scores[$m] <= 0 || $scores[$m] - $second < self::LEAST_LEAD * $scores[$m]) {
            return null;
        }
        // Where no other motor explains any of it, less will do.
        $least = $second <= 0.0 ? self::LEAST_ALONE : self::LEAST_OF_PUSH;
        if ($scores[$m] < $least * self::ofAnyPush($one, $doubt, $from, $early)) {
            return null;
        }

        return Suspicion::ofLoss($blocks->run, $from * $blocks->size, $to * $blocks->size, $m, $scores, $fell, $share);
    }

    /**
     * Whether the push is gone sooner than a rotor that stops can lose it, and does not go on going; a prop can fail so, but it does
     * not come back.
     */
    private static function isSudden(Unexplained $one, Doubt $doubt, int $m, int $from, int $to, float $share): bool
    {
        $lag = $one->model->law->downS;
        if ($lag < self::SLOW_ROTOR_S) {
            return false;
        }
        $first = self::gone($one, $doubt, $m, $from + 1, $from + 2, $share);

        // Thrust goes with the square of speed.
        return $first > 1 - exp(-2 * 2 * $one->blocks->seconds() / $lag) + self::SUDDENLY
            && self::gone($one, $doubt, $m, intdiv($from + $to, 2), $to, $share) < self::GOES_ON * $first;
    }

    /** How much of the push that would be lost is lost between two blocks. */
    private static function gone(Unexplained $one, Doubt $doubt, int $m, int $from, int $to, float $share): float
    {
        $dot = $own = 0.0;
        for ($b = $from, $end = min($to, $one->blocks->count() - 1); $b <= $end; ++$b) {
            for ($a = 0; $a < 2; ++$a) {
                $spread = $doubt->at($one, $a, $b);
                $gone = -(1 - $share) * $one->push($a, $m, $b) / $spread;
                $dot += $one->off[$a][$b] / $spread * $gone;
                $own += $gone * $gone;
            }
        }

        return $own > 0 ? $dot / $own : 0.0;
    }

    /** What an unknown push, the same all along and of whatever direction, would explain; less what its freedom is worth. */
    private static function ofAnyPush(Unexplained $one, Doubt $doubt, int $from, int $to): float
    {
        $push = [0.0, 0.0, 0.0];
        $n = $to - $from + 1;
        for ($a = 0; $a < 3; ++$a) {
            $part = \array_slice($one->off[$a], $from, $n);
            sort($part);
            $push[$a] = $part[intdiv($n, 2)] ?? 0.0;
        }
        $sum = $alone = 0.0;
        for ($b = $from; $b <= $to; ++$b) {
            $well = $bad = 0.0;
            $alone += $doubt->worth($one->washed[$b]);
            for ($a = 0; $a < 3; ++$a) {
                $spread = $doubt->at($one, $a, $b);
                $count = 2 === $a ? self::YAW : 1.0;
                $well += $count * ($one->off[$a][$b] / $spread) ** 2;
                $bad += $count * (($one->off[$a][$b] - $push[$a]) / $spread) ** 2;
            }
            $told = (self::FREEDOM + 3) / 2 * log((1 + $well / self::FREEDOM) / (1 + $bad / self::FREEDOM));
            $sum += $doubt->worth($one->washed[$b]) * $told;
        }

        return $sum - 1.5 * log(max(2.0, $alone));
    }
}
