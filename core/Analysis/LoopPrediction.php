<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Signal\Fft;

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

    private function __construct(public StepCurve $curve, public float $sensitivity, public float $noiseGain)
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
        $kp = $gains->p / 100;
        $ki = $gains->i / 100;
        $kd = $gains->d / 1000;
        $kf = $gains->ff / 1000;
        for ($k = 1; $k <= $half; ++$k) {
            $hz = $k * self::RATE_HZ / $n;
            $w = 2 * \M_PI * $hz;
            [$gr, $gi] = $plant->response($w);
            [$fr, $fi] = $filters->ratePath->response(min($hz, 0.49 * $filters->ratePath->rateHz));
            [$dr, $di] = $filters->dPath->response(min($hz, 0.49 * $filters->dPath->rateHz));
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
            $sensitivity = max($sensitivity, 1 / sqrt($l));
            if ($hz > 80) {
                $noise += $ar * $ar + $ai * $ai;
            }
            // T = G(P + I/s + FF·s) / (1 + L)
            [$tr, $ti] = [$gr * $cr - $gi * ($ci + $kf * $w), $gr * ($ci + $kf * $w) + $gi * $cr];
            $re[] = ($tr * $lr + $ti * $li) / $l;
            $im[] = ($ti * $lr - $tr * $li) / $l;
        }
        $im[$half] = 0.0;
        for ($k = $half - 1; $k > 0; --$k) {
            $re[] = $re[$k];
            $im[] = -$im[$k];
        }
        [$impulse] = Fft::ofSize($n)->inverse($re, $im);
        $values = [];
        $sum = 0.0;
        for ($i = 0; $i <= 500; ++$i) {
            $values[] = $sum + 0.5 * $impulse[$i];
            $sum += $impulse[$i];
        }

        return new self(new StepCurve(1 / self::RATE_HZ, $values), $sensitivity, sqrt($noise / $half));
    }

    /** Whether the loop is far enough from oscillating for the prediction to mean anything. */
    public function isStable(): bool
    {
        $largest = max([0.0, ...array_map('abs', $this->curve->values)]);

        return $this->sensitivity < 4.0 && $largest < 3.0;
    }
}
