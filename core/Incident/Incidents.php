<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Incident\Motion\Blocks;
use Ortholex\Core\Incident\Motion\CraftModel;
use Ortholex\Core\Incident\Motion\Doubt;
use Ortholex\Core\Incident\Motion\FlightRun;
use Ortholex\Core\Incident\Motion\Motion;
use Ortholex\Core\Incident\Motion\RotorLaw;
use Ortholex\Core\Incident\Motion\Unexplained;
use Ortholex\Core\Incident\Saying\Kind;

/**
 * Finds the moments when it went wrong, and what it was: learn the craft from the flight, find what no whole craft does, detect
 * rotation that nobody asked for, and give each moment the cause that explains what the others do not.
 */
final readonly class Incidents
{
    public const FULL = 0.97;
    public const MERGE_S = 0.5;

    /** What a craft short of a motor does afterwards belongs to its loss for so long. */
    public const AFTERWARDS_S = 3.0;

    /** What surrounds a sign by so much teaches nothing of a whole craft. */
    private const UNSURE_S = 1.0;

    /** Blocks that a craft can be learned from. */
    private const LEAST_TAUGHT = 700;

    /** A choice of less or more to learn from must be liker a craft by this. */
    private const LESS_FOR_LATER = 0.02;

    /**
     * @param Motion|null $motion of the log, where it was made already
     *
     * @return list<Incident> in order of time
     */
    public static function of(FlightLog $log, ?Motion $motion = null): array
    {
        $motion ??= Motion::of($log);
        [$runs, $places] = [$motion->runs, $motion->places];
        if ([] === $runs || [] === $places) {
            return [];
        }
        $limit = UnaskedRotation::limit($runs);
        $signs = [];
        foreach ($runs as $run) {
            foreach ([] === $run->set ? [] : UnaskedRotation::spans($run, $limit) as [$from, $to]) {
                $signs[] = Suspicion::ofRotation($run, $from, $to);
            }
        }
        [$unexplained, $doubt, $losses] = self::losses($motion, $signs);
        $found = [];
        foreach ($losses as $loss) {
            [$loss, $signs] = self::withWhatFollows($loss, $signs);
            $found[] = Incident::ofLoss($loss, $places, $unexplained[$loss->run->number] ?? null);
        }
        foreach ($runs as $run) {
            foreach (self::glitches($run, $losses, $signs) as $glitch) {
                $found[] = Incident::ofRotation($glitch, Kind::SensorGlitch, $places, $unexplained[$run->number] ?? null);
            }
        }
        foreach ($signs as $sign) {
            $off = $unexplained[$sign->run->number] ?? null;
            $kind = Rivals::of($sign, $off, $doubt);
            $at = Kind::Hit === $kind && null !== $off && null !== $doubt ? Rivals::knock($sign, $off, $doubt) : $sign->from;
            $found[] = Incident::ofRotation($sign->since($at), $kind, $places, $off);
        }
        usort($found, static fn (Incident $a, Incident $b): int => $a->atS <=> $b->atS);

        return $found;
    }

    /**
     * Moments at which a rate was out and back, with no sign and no loss about them.
     *
     * @param list<Suspicion> $losses
     * @param list<Suspicion> $signs
     *
     * @return list<Suspicion>
     */
    private static function glitches(FlightRun $run, array $losses, array $signs): array
    {
        $found = [];
        $near = $run->steps(self::MERGE_S);
        $last = -$near - 1;
        foreach ($run->glitches as $at) {
            $told = $at - $last <= $near;
            foreach ([...$losses, ...$signs] as $s) {
                $told = $told || ($s->run === $run && $at >= $s->from - $near && $at <= $s->to + $near);
            }
            if (!$told) {
                $found[] = Suspicion::ofRotation($run, $at, $at);
                $last = $at;
            }
        }

        return $found;
    }

    /**
     * @param list<Suspicion> $signs
     *
     * @return array{array<int, Unexplained>, Doubt|null, list<Suspicion>} what is unexplained by number of the run
     */
    private static function losses(Motion $motion, array $signs): array
    {
        [$blocks, $places, $law] = [$motion->blocks, $motion->places, $motion->law];
        $speeds = array_map(static fn (Blocks $b): ?SpeedEvidence => null === $law ? null : SpeedEvidence::of($b, $law), $blocks);
        $byRun = $losses = [];
        $doubt = null;
        // What was found teaches wrong: learned again without it, and looked at again.
        for ($round = 0; $round < 2; ++$round) {
            // Of a long flight it is much: what the round before saw is not held while the next learns.
            $unexplained = $byRun = [];
            [$model, $teaching] = self::learned($motion, [...$signs, ...$losses], $law);
            if (null === $model) {
                break;
            }
            $unexplained = array_map(static fn (Blocks $b): Unexplained => Unexplained::of($b, $model), $teaching);
            $doubt = Doubt::of($unexplained);
            $before = $losses;
            $losses = $model->isOfThisCraft($places) ? MotorLosses::of($unexplained, $doubt, $speeds) : [];
            if ([] === $losses && null === $motion->law && $teaching !== $blocks) {
                $losses = self::byAll($motion, $speeds);
            }
            $byRun = array_column(array_map(static fn (Unexplained $u): array => [$u->blocks->run->number, $u], $unexplained), 1, 0);
            $law = $model->law;
            if ([] === $losses && [] === $before) {
                break;
            }
        }

        return [$byRun, $doubt, $losses];
    }

    /**
     * Losses as they look to a craft learned from all of the flight. Where no speeds were logged and much was asked, what was set
     * aside had taught most.
     *
     * @param list<SpeedEvidence|null> $speeds of each run
     *
     * @return list<Suspicion>
     */
    private static function byAll(Motion $motion, array $speeds): array
    {
        $model = $motion->model;
        if (null === $model || !$model->isOfThisCraft($motion->places)) {
            return [];
        }
        $all = array_map(static fn (Blocks $b): Unexplained => Unexplained::of($b, $model), $motion->blocks);

        return MotorLosses::of($all, Doubt::of($all), $speeds);
    }

    /**
     * The craft, learned without what surrounds signs and losses, or from before the first of them, or from all: whichever is most
     * like a craft whose motors sit where they do. A motor that stays lost would else teach that it never did anything.
     *
     * @param list<Suspicion> $without
     *
     * @return array{CraftModel|null, list<Blocks>} with what it was learned from
     */
    private static function learned(Motion $motion, array $without, ?RotorLaw $law): array
    {
        [$blocks, $places] = [$motion->blocks, $motion->places];
        $best = [null, $blocks];
        $most = -\INF;
        $choices = [] === $without
            ? [$blocks]
            : [self::around($blocks, $without), self::before($blocks, $without), self::before($blocks, [self::wildest($without)]), $blocks];
        foreach ($choices as $k => $choice) {
            if (array_sum(array_map(static fn (Blocks $b): int => $b->teaching(), $choice)) < self::LEAST_TAUGHT) {
                continue;
            }
            $model = $choice === $blocks ? $motion->model : CraftModel::fit($choice, $places, $law ?? $best[0]?->law);
            $likeness = null === $model ? -\INF : $model->likeness($places) - self::LESS_FOR_LATER * $k;
            if ($likeness > $most) {
                $most = $likeness;
                $best = [$model, $choice];
            }
        }

        return $best;
    }

    /** @param non-empty-list<Suspicion> $signs */
    private static function wildest(array $signs): Suspicion
    {
        $wildest = $signs[0];
        $most = -1.0;
        foreach ($signs as $sign) {
            $stray = 0.0;
            for ($i = $sign->from; [] !== $sign->run->unasked && $i <= $sign->to; $i += 3) {
                $stray += $sign->run->strayAt($i);
            }
            if ($stray > $most) {
                $most = $stray;
                $wildest = $sign;
            }
        }

        return $wildest;
    }

    /**
     * @param list<Blocks>    $blocks
     * @param list<Suspicion> $without
     *
     * @return list<Blocks>
     */
    private static function around(array $blocks, array $without): array
    {
        return array_map(static function (Blocks $b) use ($without): Blocks {
            $stretches = [];
            foreach ($without as $s) {
                if ($s->run === $b->run) {
                    $stretches[] = [$s->from - $s->run->steps(self::UNSURE_S), $s->to + $s->run->steps(self::UNSURE_S)];
                }
            }

            return $b->without($stretches);
        }, $blocks);
    }

    /**
     * @param list<Blocks>    $blocks
     * @param list<Suspicion> $without
     *
     * @return list<Blocks>
     */
    private static function before(array $blocks, array $without): array
    {
        return array_map(static function (Blocks $b) use ($without): Blocks {
            $first = \PHP_INT_MAX;
            foreach ($without as $s) {
                if ($s->run->number < $b->run->number) {
                    $first = 0;
                } elseif ($s->run === $b->run) {
                    $first = min($first, $s->from - $s->run->steps(self::UNSURE_S));
                }
            }

            return \PHP_INT_MAX === $first ? $b : $b->without([[max(0, $first), $b->run->count()]]);
        }, $blocks);
    }

    /**
     * What a craft short of a motor does afterwards belongs to its loss.
     *
     * @param list<Suspicion> $signs
     *
     * @return array{Suspicion, list<Suspicion>} the loss with what follows from it, and the signs left
     */
    private static function withWhatFollows(Suspicion $loss, array $signs): array
    {
        $left = [];
        $run = $loss->run;
        $to = $loss->to;
        foreach ($signs as $sign) {
            if (
                $sign->run === $run
                && $sign->to >= $loss->from - $run->steps(self::MERGE_S)
                && $sign->from <= $to + $run->steps(self::AFTERWARDS_S)
            ) {
                $to = max($to, $sign->to);
            } else {
                $left[] = $sign;
            }
        }

        return [$loss->until($to), $left];
    }
}
