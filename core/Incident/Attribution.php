<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Craft\Place;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Incident\Saying\Contradiction;
use Ortholex\Core\Incident\Saying\Evidence;

/** Who stopped pushing: each motor's loss against what the craft did from the onset on, and the logged speeds, which outrank it. */
final readonly class Attribution
{
    /** Unexplained acceleration is looked at from the onset over this time. */
    private const LOOKED_AT_S = 0.13;

    /** Below this the two likeliest motors are too close to name one. */
    private const LEAST_MARGIN = 0.06;

    /** A loss that was found needs this fit to be named, rotation alone this one. */
    private const LEAST_FIT = 0.55;

    private const SURE_FIT = 0.9;

    /** Margin of a motor whose own speed tells. */
    private const RPM_MARGIN = 0.5;

    /** What yaw counts beside roll and pitch: gusts turn it too. */
    private const YAW_WEIGHT = 0.6;

    /** An axis of which the flight taught nothing still counts by this share. */
    private const LEAST_TAUGHT = 0.02;

    /** Outputs before and after the onset, s around it. */
    private const BEFORE_S = 0.06;

    private const AFTER_FROM_S = 0.03;
    private const AFTER_TO_S = 0.15;

    /** What being called for this much more than the others is worth at most, in cosine. */
    private const CALLED_PCT = 40.0;

    private const CALLED_WORTH = 0.25;

    /** Speed per output after the onset below this share of before is that of a motor that stops. */
    private const RPM_SHARE = 0.72;

    private const RPM_BEFORE_FROM_S = 0.4;
    private const RPM_BEFORE_TO_S = 0.02;
    private const RPM_AFTER_FROM_S = 0.06;
    private const RPM_AFTER_TO_S = 0.2;
    private const LEAST_OUTPUT_PCT = 5.0;

    /** A motor that stops pushing is called for this much within this time. */
    private const CALLED_FULL_PCT = 90.0;

    private const CALLED_FULL_S = 0.6;

    /**
     * @param list<MotorFit>             $ranked   best first
     * @param array{float, float, float} $rotation unexplained angular acceleration, deg/s²
     * @param list<Fact>                 $against
     */
    private function __construct(
        public ?string $place,
        public float $margin,
        public array $ranked,
        public array $rotation,
        public array $against,
        public Evidence $evidence,
    ) {
    }

    /**
     * @param list<list<float>> $thrust by motor, as the model has it
     * @param list<string>      $places of the motors
     */
    public static function of(Suspicion $s, int $onset, ?CraftModel $model, array $thrust, array $places): self
    {
        [$ranked, $rotation] = null === $model ? [[], [0.0, 0.0, 0.0]] : self::ranked($s, $onset, $model, $thrust, $places);
        $margin = [] === $ranked ? 0.0 : $ranked[0]->fit - (\count($ranked) > 1 ? $ranked[1]->fit : 0.0);
        $needed = [] === $s->likelihood ? self::SURE_FIT : self::LEAST_FIT;
        $place = [] !== $ranked && $ranked[0]->fit >= $needed && $margin >= self::LEAST_MARGIN ? $ranked[0]->place : null;
        $against = [];
        $evidence = Evidence::UnexplainedRotation;
        $byRpm = $s->stopped ?? self::slowest($s->run, $onset);
        if (null !== $byRpm) {
            if (null !== $place && $places[$byRpm] !== $place) {
                $against[] = Fact::of(Contradiction::RotationPointsElsewhere, place: $place);
            }
            $place = $places[$byRpm];
            $margin = max($margin, self::RPM_MARGIN);
            $evidence = Evidence::RpmFell;
        }
        if (null === $place) {
            $against[] = Fact::of(Contradiction::NoMotorFits);
        } elseif (!self::everFull($s->run, (int) array_search($place, $places, true), $onset)) {
            $against[] = Fact::of(Contradiction::NeverCalledForFull);
        }

        return new self($place, $margin, $ranked, $rotation, $against, $evidence);
    }

    /**
     * @param list<list<float>> $thrust
     * @param list<string>      $places
     *
     * @return array{list<MotorFit>, array{float, float, float}}
     */
    private static function ranked(Suspicion $s, int $onset, CraftModel $model, array $thrust, array $places): array
    {
        $run = $s->run;
        $end = min($run->count() - 1, $onset + $run->nearestSteps(self::LOOKED_AT_S));
        [$rotation, $cosines] = self::cosines($run, $model, $thrust, $places, max(0, $onset), $end);
        $most = [] === $s->likelihood ? 1.0 : max(1.0, ...$s->likelihood);
        $ranked = [];
        foreach ($cosines as $m => $cosine) {
            $fit = [] === $s->likelihood ? $cosine + self::calledForMore($run, $m, $onset) : ($s->likelihood[$m] ?? 0.0) / $most;
            $ranked[] = new MotorFit($places[$m], round($fit, 3));
        }
        usort($ranked, static fn (MotorFit $p, MotorFit $q): int => $q->fit <=> $p->fit);

        return [$ranked, $rotation];
    }

    /**
     * @param list<list<float>> $thrust
     * @param list<string>      $places
     *
     * @return array{array{float, float, float}, list<float>} mean unexplained acceleration, and how each motor's loss resembles it
     */
    private static function cosines(FlightRun $run, CraftModel $model, array $thrust, array $places, int $a, int $b): array
    {
        // A flight too calm to teach what the motors do: then the acceleration itself stands against where the motors sit.
        $taught = MotorLosses::mayAccuse($model);
        $effectiveness = $taught ? $model->effectiveness : self::bySide($places);
        $mean = [0.0, 0.0, 0.0];
        for ($i = $a; $i <= $b; ++$i) {
            $expected = $taught ? $model->expected(array_column($thrust, $i), $run->rateAt($i)) : [0.0, 0.0, 0.0];
            foreach ([0, 1, 2] as $axis) {
                $mean[$axis] += ($run->accel[$axis][$i] - $expected[$axis]) / ($b - $a + 1);
            }
        }
        // Each axis counts by its own size, and by how well the flight taught it.
        $weight = [];
        foreach ([0, 1, 2] as $axis) {
            $size = sqrt(array_sum(array_map(static fn (float $e): float => $e * $e, $effectiveness[$axis])) / max(1, \count($thrust)));
            $trust = $taught ? sqrt(max(self::LEAST_TAUGHT, $model->r2[$axis])) : 1.0;
            $weight[] = $size > 0 ? ($trust * (2 === $axis ? self::YAW_WEIGHT : 1.0)) / $size : 0.0;
        }
        $cosines = [];
        foreach (array_keys($thrust) as $m) {
            $dot = $vv = $ee = 0.0;
            foreach ([0, 1, 2] as $axis) {
                $v = $mean[$axis] * $weight[$axis];
                $e = -$effectiveness[$axis][$m] * $weight[$axis];
                $dot += $v * $e;
                $vv += $v * $v;
                $ee += $e * $e;
            }
            $cosines[] = $vv > 0 && $ee > 0 ? $dot / sqrt($vv * $ee) : 0.0;
        }

        return [[round($mean[0], 1), round($mean[1], 1), round($mean[2], 1)], $cosines];
    }

    /**
     * What each motor does to roll and pitch by where it sits alone; nothing where its place does not tell.
     *
     * @param list<string> $places
     *
     * @return array<int, list<float>> by axis and motor
     */
    private static function bySide(array $places): array
    {
        $effectiveness = [[], [], []];
        foreach ($places as $name) {
            $place = Place::tryFrom($name);
            $effectiveness[0][] = null === $place ? 0.0 : (float) -$place->right();
            $effectiveness[1][] = null === $place ? 0.0 : (float) $place->forward();
            $effectiveness[2][] = 0.0;
        }

        return $effectiveness;
    }

    /** A motor that is called for more while the craft turns towards it confirms itself; one that is let go speaks against itself. */
    private static function calledForMore(FlightRun $run, int $m, int $onset): float
    {
        $more = [];
        foreach ($run->outputs as $output) {
            $more[] =
                self::mean($output, $onset + $run->steps(self::AFTER_FROM_S), $onset + $run->steps(self::AFTER_TO_S)) -
                self::mean($output, $onset - $run->steps(self::BEFORE_S), $onset);
        }

        return self::CALLED_WORTH * max(-1.0, min(1.0, ($more[$m] - array_sum($more) / \count($more)) / self::CALLED_PCT));
    }

    /** The motor whose rpm fell against its output, where rpm was logged. */
    private static function slowest(FlightRun $run, int $onset): ?int
    {
        $worst = null;
        $least = self::RPM_SHARE;
        $before = [$onset - $run->steps(self::RPM_BEFORE_FROM_S), $onset - $run->steps(self::RPM_BEFORE_TO_S)];
        $after = [$onset + $run->steps(self::RPM_AFTER_FROM_S), $onset + $run->steps(self::RPM_AFTER_TO_S)];
        foreach ($run->rpm as $m => $rpm) {
            if (null === $rpm) {
                continue;
            }
            $output = $run->outputs[$m];
            $was = self::mean($rpm, ...$before) / max(self::LEAST_OUTPUT_PCT, self::mean($output, ...$before));
            $is = self::mean($rpm, ...$after) / max(self::LEAST_OUTPUT_PCT, self::mean($output, ...$after));
            if ($was > 0 && $is / $was < $least) {
                $least = $is / $was;
                $worst = $m;
            }
        }

        return $worst;
    }

    private static function everFull(FlightRun $run, int $m, int $onset): bool
    {
        return max([0.0, ...\array_slice($run->outputs[$m], $onset, $run->steps(self::CALLED_FULL_S))]) >= self::CALLED_FULL_PCT;
    }

    /** @param list<float> $row */
    private static function mean(array $row, int $from, int $to): float
    {
        $part = \array_slice($row, max(0, $from), max(1, $to - max(0, $from)));

        return [] === $part ? 0.0 : array_sum($part) / \count($part);
    }
}
