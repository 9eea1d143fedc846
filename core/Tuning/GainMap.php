<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Control\RateFilters;

/** P against D for an identified axis: modulus margin and peak of the step over a grid, everything else as it is. */
final readonly class GainMap
{
    private const P_STEPS = 15;
    private const D_STEPS = 12;

    /** From half to twice of what is flown. */
    private const AROUND = 2.0;

    /**
     * @param list<float>             $p
     * @param list<float>             $d
     * @param list<list<float>>       $modulus by d, then p; 0 where the loop oscillates
     * @param list<list<float|null>>  $peak    the same; null where it oscillates
     */
    private function __construct(public array $p, public array $d, public array $modulus, public array $peak)
    {
    }

    public static function of(AxisPlant $plant, GainSet $now, RateFilters $filters): self
    {
        $middle = max(4.0, $now->p);
        $ps = $ds = $moduli = $peaks = [];
        for ($i = 0; $i < self::P_STEPS; ++$i) {
            $ps[] = ($middle / self::AROUND) * self::AROUND ** ((2 * $i) / (self::P_STEPS - 1));
        }
        $most = max(2 * $now->d, 0.02 * ($middle / 100) * 1000);
        for ($j = 0; $j < self::D_STEPS; ++$j) {
            $ds[] = ($most * $j) / (self::D_STEPS - 1);
        }
        foreach ($ds as $d) {
            $modulus = $peak = [];
            foreach ($ps as $p) {
                $gains = new GainSet($p, $now->i, $d, $now->ff);
                $step = LoopPrediction::of($plant, $gains, $filters);
                $stable = $step->isStable();
                $modulus[] = $stable ? round(1 / $step->sensitivity, 3) : 0.0;
                $peak[] = $stable ? round($step->curve->numbers()->peak, 3) : null;
            }
            $moduli[] = $modulus;
            $peaks[] = $peak;
        }

        return new self($ps, $ds, $moduli, $peaks);
    }
}
