<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/** Filter stages in series at one sample rate. Immutable; an empty chain passes everything. */
final readonly class FilterChain
{
    /** @param list<FilterStage> $stages */
    private function __construct(public float $rateHz, public array $stages)
    {
    }

    public static function of(float $rateHz, FilterStage ...$stages): self
    {
        return new self($rateHz, array_values($stages));
    }

    public function then(FilterStage ...$stages): self
    {
        return new self($this->rateHz, [...$this->stages, ...array_values($stages)]);
    }

    /** @return array{float, float} H(f) as real and imaginary part */
    public function response(float $hz): array
    {
        $re = 1.0;
        $im = 0.0;
        foreach ($this->stages as $stage) {
            [$r, $i] = $stage->response($hz, $this->rateHz);
            [$re, $im] = [$re * $r - $im * $i, $re * $i + $im * $r];
        }

        return [$re, $im];
    }

    public function gainDb(float $hz): float
    {
        [$re, $im] = $this->response($hz);

        return 10 * log10(max(1e-30, $re * $re + $im * $im));
    }

    /** −φ/(2πf) in seconds, the phase unwrapped stage by stage, so that a chain never folds; 0 at 0 Hz is the limit. */
    public function phaseDelay(float $hz): float
    {
        $hz = max($hz, 1e-3);

        return -$this->phase($hz) / (2 * \M_PI * $hz);
    }

    /** −dφ/(2π·df) in seconds, by a central difference narrow against any stage. */
    public function groupDelay(float $hz): float
    {
        $step = min(0.01, max($hz, 0.02) / 4);

        return -($this->phase($hz + $step) - $this->phase($hz - $step)) / (4 * \M_PI * $step);
    }

    /**
     * @param list<float> $samples
     *
     * @return list<float> filtered from rest at the first sample's value, as a craft at rest on the ground would be
     */
    public function run(array $samples): array
    {
        if ([] === $samples) {
            return [];
        }
        foreach ($this->stages as $stage) {
            $b0 = $stage->b0;
            $b1 = $stage->b1;
            $b2 = $stage->b2;
            $a1 = $stage->a1;
            $a2 = $stage->a2;
            $x1 = $x2 = $samples[0];
            $y1 = $y2 = ($samples[0] * ($b0 + $b1 + $b2)) / (1 + $a1 + $a2);
            foreach ($samples as $i => $x) {
                $y = $b0 * $x + $b1 * $x1 + $b2 * $x2 - $a1 * $y1 - $a2 * $y2;
                $x2 = $x1;
                $x1 = $x;
                $y2 = $y1;
                $y1 = $y;
                $samples[$i] = $y;
            }
        }

        return $samples;
    }

    /** Each stage's own phase stays within (−2π, π/2) for low-passes and notches, so one unwrap each suffices. */
    private function phase(float $hz): float
    {
        $sum = 0.0;
        foreach ($this->stages as $stage) {
            [$re, $im] = $stage->response($hz, $this->rateHz);
            $phase = atan2($im, $re);
            $isNotch = $stage->b0 === $stage->b2 && 0.0 !== $stage->b2 && $stage->b1 === $stage->a1;
            $sum += !$isNotch && $phase > \M_PI_2 ? $phase - 2 * \M_PI : $phase;
        }

        return $sum;
    }
}
