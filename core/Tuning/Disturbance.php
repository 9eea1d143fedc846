<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Step\StepCurve;

/**
 * What the rate does while something pushes with a constant 100 deg/s²: Y = 100/s · 1/(s + d) / (1 + L), as a gust or a prop wash does.
 */
final readonly class Disturbance
{
    public const PUSH_DPS2 = 100.0;
    private const RATE_HZ = 1000.0;
    private const SAMPLES = 2048;
    private const SHOWN_S = 0.5;

    /**
     * @param list<float> $rateDps   by ms after the push begins
     * @param float       $peakDps   the farthest it is turned
     * @param float|null  $halfMs    from there until half of it is left; null where that is not seen
     */
    private function __construct(public array $rateDps, public float $peakDps, public ?float $halfMs)
    {
    }

    public static function of(AxisPlant $plant, GainSet $gains, RateFilters $filters): self
    {
        // The rate's response to an impulse of acceleration is 1/(s + d)/(1 + L); its step is that to a push that stays.
        $top = RateFilters::highestHz($filters->ratePath->rateHz);
        $still = $gains->i > 0 ? 0.0 : 1 / (AxisPlant::DRAG + ($plant->effectiveness * $gains->p) / 100);
        [$re, $im] = [[$still], [0.0]];
        for ($k = 1; $k <= self::SAMPLES >> 1; ++$k) {
            $hz = ($k * self::RATE_HZ) / self::SAMPLES;
            $w = 2 * \M_PI * $hz;
            [$lr, $li] = LoopMargins::loop($plant, $gains, $filters, min($hz, $top));
            // (d + iω)(1 + L)
            $dr = AxisPlant::DRAG * (1 + $lr) - $w * $li;
            $di = AxisPlant::DRAG * $li + $w * (1 + $lr);
            $q = $dr * $dr + $di * $di;
            $re[] = $dr / $q;
            $im[] = -$di / $q;
        }
        $curve = StepCurve::fromResponse($re, $im, self::RATE_HZ, self::SHOWN_S);
        $rate = array_map(static fn (float $v): float => self::PUSH_DPS2 * $v, $curve->values);
        $peak = max([0.0, ...$rate]);
        $at = (int) array_search($peak, $rate, true);
        $halfMs = null;
        for ($t = $at, $n = \count($rate); $t < $n && null === $halfMs; ++$t) {
            $halfMs = $rate[$t] <= $peak / 2 ? (float) ($t - $at) : null;
        }

        return new self($rate, $peak, $halfMs);
    }
}
