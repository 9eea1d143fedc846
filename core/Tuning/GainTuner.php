<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Control\RateFilters;

/**
 * Gains for an identified axis: the quickest answer that keeps a modulus margin, does not ring and does not deafen the motors. Searched
 * over P, D and I about what was flown, coarsely and then finely; no further from it than one flight is to be believed.
 */
final readonly class GainTuner
{
    /** A step that peaks higher rings; a loop nearer to oscillating is not left so. */
    public const MOST_PEAK = 1.15;

    public const LEAST_MODULUS = 0.5;

    /** An answer that could be quicker by less than this share is quick enough; without D, which is yaw, much less is felt. */
    private const WORTH = 0.12;

    private const WORTH_WITHOUT_D = 0.3;

    /** Wanted of the prediction; a flight is a little worse than its model. */
    public const MODULUS = 0.58;

    private const PEAK = 1.07;
    private const HIGHEST = 1.12;

    /** So much further than it flew a prediction is trusted, as a factor. */
    private const TRUSTED = 2.2;

    private const TRUSTED_DOWN = 4.0;

    /** What the catalogue allows. */
    private const MOST_P = 120.0;

    private const MOST_D = 8.0;

    /** How much more noise may reach the motors. */
    private const NOISE_GROWTH = 2.5;

    /** D per P, s: what most craft fly with; and where it only amplifies. */
    private const USUAL_D_PER_P = 0.012;

    private const MOST_D_PER_P = 0.022;

    /** I per P, 1/s, from which it makes the step overshoot. */
    private const MOST_I_PER_P = 3.0;

    /** A push of 100 deg/s² is to be half gone after so much, ms. */
    private const HALF_MS = 70.0;

    private function __construct(public GainSet $gains, public LoopPrediction $prediction, public LoopMargins $margins)
    {
    }

    /**
     * What an axis needs, where it needs something: it rings, is too close to oscillating, or could be a good deal quicker.
     *
     * @param float|null $peak measured; null where no flight tells
     */
    public static function advise(AxisPlant $plant, GainSet $now, RateFilters $filters, ?float $peak, bool $withD = true): ?self
    {
        $better = self::best($plant, $now, $filters, $withD);
        if (null === $better || ($better->gains->p === $now->p && $better->gains->d === $now->d)) {
            return null;
        }
        if ((null !== $peak && $peak > self::MOST_PEAK) || self::modulus($plant, $now, $filters) < self::LEAST_MODULUS) {
            return $better;
        }

        return $better->isQuicker($plant, $now, $filters, $withD) ? $better : null;
    }

    /** Whether that is worth a flight. */
    public function isQuicker(AxisPlant $plant, GainSet $now, RateFilters $filters, bool $withD = true): bool
    {
        // Feed-forward is another matter: both without.
        $delayMs = static fn (GainSet $g): ?float => LoopPrediction::of($plant, new GainSet($g->p, $g->i, $g->d, 0.0), $filters)
            ->curve->numbers()
            ->delayMs;
        [$delay, $could] = [$delayMs($now), $delayMs($this->gains)];

        return null !== $could && (null === $delay || $could < (1 - ($withD ? self::WORTH : self::WORTH_WITHOUT_D)) * $delay);
    }

    /** Modulus margin; nought for a loop that swings, however far from −1 it goes round it. */
    public static function modulus(AxisPlant $plant, GainSet $gains, RateFilters $filters): float
    {
        return LoopPrediction::of($plant, $gains, $filters)->isStable() ? LoopMargins::of($plant, $gains, $filters)->modulus : 0.0;
    }

    /** Null where nothing in reach keeps the margin. */
    public static function best(AxisPlant $plant, GainSet $now, RateFilters $filters, bool $withD = true): ?self
    {
        // Who flies with hardly any D hears little of it; what is usual is no harm.
        $most = self::TRUSTED * $now->p;
        $usual = new GainSet($most, $now->i, self::USUAL_D_PER_P * ($most / 100) * 1000, 0.0);
        $noise = max(
            LoopPrediction::of($plant, $now, $filters)->noiseGain,
            LoopPrediction::of($plant, $usual, $filters)->noiseGain / self::NOISE_GROWTH,
        );
        // Without D, I may have to give way as well.
        $shares = $withD ? [1.0] : [1.0, 0.6, 0.35];
        $best = null;
        $middle = [max(1.0, $now->p), $now->d];
        foreach ([[1.22, 0.0035, 4], [1.08, 0.0012, 3], [1.03, 0.0004, 3]] as [$factor, $step, $reach]) {
            foreach (self::around($middle, $factor, $step, $reach, $now, $withD) as [$p, $d]) {
                foreach ($shares as $share) {
                    $i = $share * min(self::MOST_I_PER_P * $p, $now->i * max(0.5, min(2.0, $p / max(1.0, $now->p))));
                    $gains = new GainSet($p, $i, $d, 0.0);
                    $cost = self::cost($plant, $gains, $filters, $noise);
                    if (null !== $cost && (null === $best || $cost < $best[0])) {
                        $best = [$cost, $gains];
                    }
                }
            }
            if (null === $best) {
                return null;
            }
            $middle = [$best[1]->p, $best[1]->d];
        }
        $gains = self::rounded($plant, self::withI($plant, $best[1], $filters), $filters, $noise, $now->ff);

        return new self($gains, LoopPrediction::of($plant, $gains, $filters), LoopMargins::of($plant, $gains, $filters));
    }

    /**
     * @param array{float, float} $middle P and D
     *
     * @return iterable<array{float, float}> P and D about them, in reach of what was flown
     */
    private static function around(array $middle, float $factor, float $step, int $reach, GainSet $now, bool $withD): iterable
    {
        [$p0, $d0] = $middle;
        $flown = max(1.0, $now->p);
        // Down is safer than up, and looked at further.
        for ($i = -2 * $reach; $i <= $reach; ++$i) {
            $p = $p0 * $factor ** $i;
            if ($p > min(self::MOST_P, self::TRUSTED * $flown) || $p < $flown / self::TRUSTED_DOWN) {
                continue;
            }
            for ($j = $withD ? -$reach : 0; $j <= ($withD ? $reach : 0); ++$j) {
                $perP = $withD ? $d0 / 1000 / ($p0 / 100) + $j * $step : 0.0;
                if ($perP >= 0 && $perP <= min(self::MOST_D_PER_P, self::MOST_D / 1000 / ($p / 100))) {
                    yield [$p, $perP * ($p / 100) * 1000];
                }
            }
        }
    }

    /** In ms of delay; null where it is no choice. */
    private static function cost(AxisPlant $plant, GainSet $gains, RateFilters $filters, float $noise): ?float
    {
        $step = LoopPrediction::of($plant, $gains, $filters);
        if (!$step->isStable() || $step->sensitivity > 1 / self::MODULUS || $step->noiseGain > self::NOISE_GROWTH * max(1e-9, $noise)) {
            return null;
        }
        $numbers = $step->curve->numbers();
        if ($numbers->peak > self::HIGHEST) {
            return null;
        }

        return ($numbers->delayMs ?? 200.0)
            + 400 * max(0.0, $numbers->peak - self::PEAK)
            + (1.5 * $step->noiseGain) / max(1e-9, $noise);
    }

    /** As much I as takes a push away soon, while the margin stays. */
    private static function withI(AxisPlant $plant, GainSet $gains, RateFilters $filters): GainSet
    {
        foreach ([1.0, 1.35, 1.8, 2.4] as $factor) {
            $tried = new GainSet($gains->p, $gains->i * $factor, $gains->d, 0.0);
            $step = LoopPrediction::of($plant, $tried, $filters);
            if ($step->sensitivity > 1 / self::MODULUS || $step->curve->numbers()->peak > self::PEAK + 0.03) {
                break;
            }
            $gains = $tried;
            if ((Disturbance::of($plant, $tried, $filters)->halfMs ?? \INF) <= self::HALF_MS) {
                break;
            }
        }

        return $gains;
    }

    /** To the steps of the catalogue: of the neighbours the one that costs least. */
    private static function rounded(AxisPlant $plant, GainSet $gains, RateFilters $filters, float $noise, float $ff): GainSet
    {
        $best = null;
        $least = \INF;
        foreach ([floor(2 * $gains->p) / 2, ceil(2 * $gains->p) / 2] as $p) {
            foreach ([floor(10 * $gains->d) / 10, ceil(10 * $gains->d) / 10] as $d) {
                $one = new GainSet(max(0.5, min(self::MOST_P, $p)), min(400.0, round($gains->i)), min(self::MOST_D, $d), 0.0);
                // Where no neighbour is as good as what lies between them, the calmest.
                $cost = self::cost($plant, $one, $filters, $noise) ?? 1e6 * LoopPrediction::of($plant, $one, $filters)->sensitivity;
                if ($cost < $least) {
                    [$best, $least] = [$one, $cost];
                }
            }
        }

        return new GainSet($best->p ?? $gains->p, $best->i ?? $gains->i, $best->d ?? $gains->d, $ff);
    }
}
