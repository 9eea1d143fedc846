<?php

declare(strict_types=1);

namespace Ortholex\Core\DeskNoise;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\RidgeKind;
use Ortholex\Core\Noise\Ridges;
use Ortholex\Core\Signal\Statistics;

/**
 * What a craft shakes with on the desk, its motors raised in steps, props off: spectra over output, their ridges named. What stands is
 * the frame; what climbs are the shafts. (RULES, desk noise; the map and its ridges are those of a flight.)
 */
final readonly class DeskNoise
{
    private const LEAST_STEPS = 5;

    /** A shaft's speed that differs by more than this from what was told, as a share. */
    private const SPEED_OFF = 0.08;

    /** An order goes through zero: this much of its frequency may be left over there. */
    private const OFF_ZERO = 0.12;

    /** Below this nothing is worth a word, dB of (deg/s)²/Hz. */
    private const FAINT_DB = -22.0;

    /**
     * @param array<string, NoiseMap>     $maps   by axis, over output in %
     * @param array<string, list<Ridge>>  $ridges by axis, strongest first
     * @param array<string, list<float>>  $rms    deg/s over the steps, by axis
     * @param list<float>                 $pct    of the steps
     * @param array<string, Swell|null>   $swells by axis
     * @param list<Fact>                  $says   of DeskSaying
     * @param list<Fact>                  $cannot what it does not tell
     */
    private function __construct(
        public array $maps,
        public array $ridges,
        public array $rms,
        public array $pct,
        public array $swells,
        public array $says,
        public array $cannot,
        public ?float $shaftHzPerPct,
    ) {
    }

    /** @param list<DeskStep> $steps in rising order */
    public static function of(array $steps, float $rateHz): self
    {
        $maps = $ridges = $rms = [];
        foreach (Axis::cases() as $axis) {
            $runs = $levels = $rms[$axis->value] = [];
            foreach ($steps as $step) {
                foreach ($step->bursts[$axis->value] ?? [] as $run) {
                    $runs[] = $run;
                    $levels[] = array_fill(0, \count($run), $step->pct);
                }
                $all = array_merge([], ...$step->bursts[$axis->value] ?? []);
                $rms[$axis->value][] = [] === $all ? 0.0 : Statistics::deviation($all);
            }
            $maps[$axis->value] = NoiseMap::of($runs, $levels, $rateHz);
            $ridges[$axis->value] = Ridges::of($maps[$axis->value], $axis);
        }
        $pct = array_map(static fn (DeskStep $s): float => $s->pct, $steps);
        $told = self::told($steps);
        $shaft = self::shaft($ridges, $told);
        $swells = array_map(static fn (NoiseMap $m): ?Swell => null === $shaft ? null : Swell::of($m, $shaft), $maps);
        [$says, $cannot] = self::says($ridges, $swells, $rms, $steps, $shaft, $told);

        return new self($maps, $ridges, $rms, $pct, $swells, $says, $cannot, $shaft);
    }

    /** Which order of the shafts a climbing ridge is; null for one that is none. */
    public function order(Ridge $ridge): ?int
    {
        return RidgeKind::Climbing === $ridge->kind && null !== $this->shaftHzPerPct ? self::orderOf($ridge, $this->shaftHzPerPct) : null;
    }

    /**
     * Turns a second per % of output, as the ESCs tell; null without feedback.
     *
     * @param list<DeskStep> $steps
     */
    private static function told(array $steps): ?float
    {
        $slopes = [];
        foreach ($steps as $step) {
            if (null !== $step->rpm && $step->rpm > 0 && $step->pct > 0) {
                $slopes[] = $step->rpm / 60 / $step->pct;
            }
        }

        return [] === $slopes ? null : Statistics::median($slopes);
    }

    /**
     * The first order, as the gyro feels it: the strongest climbing ridge that no other one is an even part of.
     *
     * @param array<string, list<Ridge>> $ridges
     */
    private static function shaft(array $ridges, ?float $told): ?float
    {
        $climbing = array_filter(
            array_merge(...array_values($ridges)),
            static fn (Ridge $r): bool => RidgeKind::Climbing === $r->kind && abs($r->hzAtZero) < self::OFF_ZERO * $r->hz,
        );
        if ([] === $climbing) {
            return $told;
        }
        usort($climbing, static fn (Ridge $a, Ridge $b): int => $b->db <=> $a->db);
        $slope = static fn (Ridge $r): float => $r->hz / max(1.0, ($r->fromPct + $r->toPct) / 2);
        $first = $slope($climbing[0]);
        foreach ($climbing as $ridge) {
            if (abs(2 * $slope($ridge) / $first - 1) < 0.06) {
                $first = $slope($ridge);
            }
        }

        return $first;
    }

    private static function orderOf(Ridge $ridge, float $hzPerPct): ?int
    {
        $at = ($ridge->fromPct + $ridge->toPct) / 2;
        $ratio = $ridge->hzAt($at) / max(1e-6, $hzPerPct * $at);
        $order = max(1, (int) round($ratio));

        return abs($ratio - $order) < 0.08 * $order ? $order : null;
    }

    /**
     * @param array<string, list<Ridge>>  $ridges
     * @param array<string, Swell|null>   $swells
     * @param array<string, list<float>>  $rms
     * @param list<DeskStep>              $steps
     *
     * @return array{list<Fact>, list<Fact>}
     */
    private static function says(array $ridges, array $swells, array $rms, array $steps, ?float $shaft, ?float $told): array
    {
        $says = $cannot = [];
        $top = [] === $steps ? 0.0 : max(array_map(static fn (DeskStep $s): float => $s->pct, $steps));
        if (\count($steps) < self::LEAST_STEPS) {
            return [[Fact::of(DeskSaying::TooFew, steps: \count($steps), least: self::LEAST_STEPS)], [Fact::of(DeskSaying::NotInFlight)]];
        }
        foreach ($ridges as $axis => $all) {
            foreach ($all as $ridge) {
                if (RidgeKind::Standing === $ridge->kind && $ridge->db > self::FAINT_DB) {
                    $says[] = Fact::of(
                        DeskSaying::Resonance,
                        axis: $axis,
                        hz: $ridge->hz,
                        db: $ridge->db,
                        from: $ridge->fromPct,
                        to: $ridge->toPct,
                    );
                }
            }
        }
        foreach (array_filter($swells) as $axis => $swell) {
            $says[] = Fact::of(DeskSaying::Swell, axis: $axis, hz: $swell->hz, db: $swell->db);
        }
        if (null !== $shaft && $shaft !== $told) {
            $says[] = Fact::of(DeskSaying::Shaft, hz_per_pct: $shaft, rpm: 60 * $shaft * $top, pct: $top);
            if (null !== $told && abs($shaft / $told - 1) > self::SPEED_OFF) {
                $says[] = Fact::of(DeskSaying::SpeedDiffers, felt: 60 * $shaft * $top, told: 60 * $told * $top);
            }
        }
        if ([] === $says) {
            $says[] = Fact::of(DeskSaying::Quiet);
        }
        [$axis, $at, $most] = self::loudest($rms);
        $says[] = Fact::of(DeskSaying::Loudest, axis: $axis, dps: $most, pct: $steps[$at]->pct);
        if (null !== $shaft) {
            $cannot[] = Fact::of(DeskSaying::NotReached, hz: $shaft * $top, pct: $top);
        }

        return [$says, [...$cannot, Fact::of(DeskSaying::NotInFlight)]];
    }

    /**
     * @param array<string, list<float>> $rms
     *
     * @return array{string, int, float} axis, step and deg/s
     */
    private static function loudest(array $rms): array
    {
        $most = ['roll', 0, 0.0];
        foreach ($rms as $axis => $steps) {
            foreach ($steps as $i => $v) {
                $most = $v > $most[2] ? [$axis, $i, $v] : $most;
            }
        }

        return $most;
    }
}
