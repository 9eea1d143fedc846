<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\FlightLog\FlightLog;

/**
 * Finds the moments when it went wrong, and whose motor stopped pushing: detect, fit, attribute, describe.
 *
 * Rotation counts as unasked by how far it lies outside all that was asked within the last tenth of a second: a lag is
 * no incident. The motor follows from the angular acceleration that the outputs do not explain: for each motor a
 * cumulative likelihood ratio (Page 1954) weighs "it pushes no more" against "all is well", step by step; its change point
 * is the onset, and the motor that explains most is named.
 */
final readonly class Incidents
{
    public const FULL_PCT = 97.0;
    public const MERGE_S = 0.5;

    /** A loss that other motors make up for can go unseen this long. */
    public const BEFORE_SIGN_S = 3.0;

    /** @return list<Incident> in order of time */
    public static function of(FlightLog $log): array
    {
        $runs = FlightRun::allOf($log);
        if ([] === $runs) {
            return [];
        }
        $places = $log->places();
        $limit = UnaskedRotation::limit($runs);
        $signs = [];
        foreach ($runs as $run) {
            foreach (UnaskedRotation::spans($run, $limit) as [$from, $to]) {
                $signs[] = Suspicion::ofRotation($run, $from, $to);
            }
        }
        // Speed is direct evidence. All that a craft does while short of a motor belongs to that loss.
        $stopped = array_merge(...array_map(RpmLosses::of(...), $runs));
        $taught = [...$signs, ...$stopped];
        $model = MotorLosses::learn($runs, $taught, $places);
        $found = array_map(static fn (Suspicion $s): array => [$s, $model], self::distinct($stopped));
        $signs = array_values(array_filter($signs, static fn (Suspicion $s): bool => !self::belongsToOne($s, $stopped)));
        [$losses, $better] = self::losses($runs, $model, $signs, $taught, $places);
        $told = [];
        foreach ($losses as $loss) {
            if (!self::belongsToOne($loss, $stopped) && !self::belongsToOne($loss, $told)) {
                [$loss, $signs] = self::withWhatFollows($loss, $signs);
                $told[] = $loss;
                $found[] = [$loss, $better];
            }
        }
        foreach ($signs as $sign) {
            $found[] = [$sign, $better];
        }
        $incidents = array_map(static fn (array $f): Incident => self::told($f[0], $f[1], $limit, $places), $found);
        usort($incidents, static fn (Incident $a, Incident $b): int => $a->atS <=> $b->atS);

        return $incidents;
    }

    /**
     * Losses that the motion alone tells, and the model once it was learned without them.
     *
     * @param list<FlightRun> $runs
     * @param list<Suspicion> $signs  that speak for a loss
     * @param list<Suspicion> $taught what the model was learned without
     * @param list<string>    $places
     *
     * @return array{list<Suspicion>, CraftModel|null}
     */
    private static function losses(array $runs, ?CraftModel $model, array $signs, array $taught, array $places): array
    {
        // With no sign to go by, only a model that explains how this craft tilts may accuse a motor.
        if (null === $model || ([] === $signs && !MotorLosses::mayAccuse($model))) {
            return [[], $model];
        }
        $losses = MotorLosses::of($runs, $model, [] === $signs);
        if ([] === $losses) {
            return [[], $model];
        }
        // What came after a loss taught the model wrong: learn again without it, and look again.
        $better = MotorLosses::learn($runs, [...$taught, ...$losses], $places) ?? $model;

        return [MotorLosses::of($runs, $better, [] === $signs), $better];
    }

    /**
     * A wreck has no motor that turns: another motor has a line of its own where it came clearly later, the same one where it
     * had run again.
     *
     * @param list<Suspicion> $stopped
     *
     * @return list<Suspicion>
     */
    private static function distinct(array $stopped): array
    {
        $told = null;
        $out = [];
        foreach ($stopped as $one) {
            $wait = $one->run->steps(self::BEFORE_SIGN_S);
            if (
                null !== $told
                && $told->run === $one->run
                && $one->from <= ($told->stopped === $one->stopped ? $told->to : $told->from) + $wait
            ) {
                continue;
            }
            $told = $one;
            $out[] = $one->until(min($one->to, $one->from + $wait));
        }

        return $out;
    }

    /** @param list<Suspicion> $stopped */
    private static function belongsToOne(Suspicion $s, array $stopped): bool
    {
        foreach ($stopped as $one) {
            if (
                $one->run === $s->run
                && $s->from >= $one->from - $s->run->steps(self::MERGE_S)
                && $s->from <= $one->to + $s->run->steps(self::BEFORE_SIGN_S)
            ) {
                return true;
            }
        }

        return false;
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
        foreach ($signs as $sign) {
            if (
                $sign->run === $run
                && $sign->from >= $loss->from - $run->steps(self::MERGE_S)
                && $sign->from <= $loss->to + $run->steps(self::BEFORE_SIGN_S)
            ) {
                $loss = $loss->until(max($loss->to, $sign->to));
            } else {
                $left[] = $sign;
            }
        }

        return [$loss, $left];
    }

    /** @param list<string> $places */
    private static function told(Suspicion $s, ?CraftModel $model, float $limit, array $places): Incident
    {
        $thrust = null === $model ? [] : CraftModel::thrust($s->run->outputs, $model->lagS, $model->power, $s->run->stepS);
        $onset = Onset::of($s, $limit, $model, $thrust);
        $who = Attribution::of($s, $onset, $model, $thrust, $places);

        return new Incident(
            $s->run->timeAt($onset),
            $s->run->timeAt($s->to),
            $who->place,
            round($who->margin, 3),
            \array_slice($who->ranked, 0, 6),
            Timeline::of($s->run, $onset, $s->to, $places, $who->place),
            $who->rotation,
            $who->against,
            $who->evidence,
        );
    }
}
