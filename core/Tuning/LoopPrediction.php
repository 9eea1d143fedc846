<?php

declare(strict_types=1);

namespace Ortholex\Core\Tuning;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Step\StepCurve;

/**
 * The step an axis would give under gains and filters it was not flown with.
 *
 * Y/X = G(P + I/s + FF·s) / (1 + G·F(P + I/s + D·s·Fd)) with the identified plant G, rate path F and D path Fd. It is
 * linear: motors at their ends, wind and prop wash are not in it.
 */
final readonly class LoopPrediction
{
    private const RATE_HZ = 1000.0;
    private const SAMPLES = 1024;
    private const SHOWN_S = 0.5;

    private function __construct(public StepCurve $curve, public float $sensitivity, public float $noiseGain, private float $turned)
    {
    }

    public static function of(AxisPlant $plant, GainSet $gains, RateFilters $filters): self
    {
        $n = self::SAMPLES;
        $half = $n >> 1;
        $re = [1.0];
        $im = [0.0];
        $sensitivity = 1.0;
        $noise = 0.0;
        $turned = null;
        $kp = $gains->p / 100;
        $ki = $gains->i / 100;
        $kd = $gains->d / 1000;
        $kf = $gains->ff / 1000;
        $axis = self::ofPlant($plant);
        $paths = self::ofFilters($filters);
        for ($k = 1; $k <= $half; ++$k) {
            $hz = ($k * self::RATE_HZ) / $n;
            $w = 2 * \M_PI * $hz;
            [$gr, $gi] = $axis[$k];
            [$fr, $fi, $dr, $di] = $paths[$k];
            // P + I/s and D·s·Fd
            $cr = $kp;
            $ci = -$ki / $w;
            $er = -$kd * $w * $di;
            $ei = $kd * $w * $dr;
            // L = G·F·(P + I/s + D·s·Fd)
            [$ar, $ai] = [$fr * ($cr + $er) - $fi * ($ci + $ei), $fr * ($ci + $ei) + $fi * ($cr + $er)];
            $lr = 1 + $gr * $ar - $gi * $ai;
            $li = $gr * $ai + $gi * $ar;
            $l = max(1e-9, $lr * $lr + $li * $li);
            // 1 + L ends at 1; followed without jumps, it comes there without having gone round zero if the loop is stable (Nyquist).
            $angle = atan2($li, $lr);
            $turned = null === $turned ? $angle : $turned + fmod($angle - fmod($turned, 2 * \M_PI) + 5 * \M_PI, 2 * \M_PI) - \M_PI;
            $sensitivity = max($sensitivity, 1 / sqrt($l));
            if ($hz > 80) {
                $noise += $ar * $ar + $ai * $ai;
            }
            // T = G(P + I/s + FF·s) / (1 + L)
            [$tr, $ti] = [$gr * $cr - $gi * ($ci + $kf * $w), $gr * ($ci + $kf * $w) + $gi * $cr];
            $re[] = ($tr * $lr + $ti * $li) / $l;
            $im[] = ($ti * $lr - $tr * $li) / $l;
        }

        return new self(StepCurve::fromResponse($re, $im, self::RATE_HZ, self::SHOWN_S), $sensitivity, sqrt($noise / $half), $turned);
    }

    /** @return list<array{float, float}> G at each frequency; kept, since a search asks for the same axis again and again */
    private static function ofPlant(AxisPlant $plant): array
    {
        /** @var \WeakMap<AxisPlant, list<array{float, float}>>|null $kept */
        static $kept = null;
        $kept ??= new \WeakMap();
        /** @var list<array{float, float}>|null $at */
        $at = $kept[$plant] ?? null;
        if (null === $at) {
            $at = [];
            for ($k = 0; $k <= self::SAMPLES >> 1; ++$k) {
                $at[] = $plant->response((2 * \M_PI * $k * self::RATE_HZ) / self::SAMPLES);
            }
            $kept[$plant] = $at;
        }

        return $at;
    }

    /** @return list<array{float, float, float, float}> F and Fd at each frequency; kept for the same reason */
    private static function ofFilters(RateFilters $filters): array
    {
        /** @var \WeakMap<RateFilters, list<array{float, float, float, float}>>|null $kept */
        static $kept = null;
        $kept ??= new \WeakMap();
        /** @var list<array{float, float, float, float}>|null $at */
        $at = $kept[$filters] ?? null;
        if (null === $at) {
            [$rateTop, $dTop] = [RateFilters::highestHz($filters->ratePath->rateHz), RateFilters::highestHz($filters->dPath->rateHz)];
            $at = [];
            for ($k = 0; $k <= self::SAMPLES >> 1; ++$k) {
                $hz = ($k * self::RATE_HZ) / self::SAMPLES;
                $at[] = [...$filters->ratePath->response(min($hz, $rateTop)), ...$filters->dPath->response(min($hz, $dTop))];
            }
            $kept[$filters] = $at;
        }

        return $at;
    }

    /** Whether the loop is stable, and far enough from oscillating for the prediction to mean anything. */
    public function isStable(): bool
    {
        $largest = max([0.0, ...array_map('abs', $this->curve->values)]);

        return abs($this->turned) < \M_PI && $this->sensitivity < 4.0 && $largest < 3.0;
    }
}
