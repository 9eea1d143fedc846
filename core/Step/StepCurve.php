<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Signal\RealFft;

/** A unit step response on a uniform time grid, and the textbook numbers read from it. */
final readonly class StepCurve
{
    /** @param list<float> $values sample i stands at i·stepS */
    public function __construct(public float $stepS, public array $values)
    {
    }

    /**
     * Inverse transform of a frequency response, and its running sum.
     *
     * @param list<float> $re      bins 0 to N/2 of an N-point transform, N a power of two
     * @param list<float> $im
     * @param float       $rateHz  sample rate that the bins belong to
     * @param float       $shownS  how much of the step is wanted, at most half the transform
     */
    public static function fromResponse(array $re, array $im, float $rateHz, float $shownS): self
    {
        $half = \count($re) - 1;
        $n = 2 * $half;
        $impulse = RealFft::ofSize($n)->inverse($re, $im);
        $sum = 0.0;
        // What wraps to negative time is the blur of the band limit; it belongs to the rise at zero.
        for ($i = (int) ($n * 0.98); $i < $n; ++$i) {
            $sum += $impulse[$i];
        }
        $values = [];
        for ($i = 0, $last = min((int) ($shownS * $rateHz), $half); $i <= $last; ++$i) {
            // The sample at zero straddles time zero, hence half of each counts on either side.
            $values[] = $sum + 0.5 * $impulse[$i];
            $sum += $impulse[$i];
        }

        return new self(1.0 / $rateHz, $values);
    }

    /** @param list<float> $blur as long as the curve */
    public function less(array $blur): self
    {
        return new self($this->stepS, array_map(static fn (float $v, float $b): float => $v - $b, $this->values, $blur));
    }

    /** Mean over the last third, where a stable loop has settled. */
    public function steady(): float
    {
        $tail = \array_slice($this->values, (int) ((\count($this->values) * 2) / 3));

        return array_sum($tail) / \count($tail);
    }

    /** Middle of the impulse response in time, s: the delay of slow moves. Taken to where the curve first stays near its end. */
    public function centreS(): float
    {
        $steady = $this->steady();
        if (abs($steady) < 1e-6) {
            return 0.0;
        }
        $sum = -0.5 * $this->stepS;
        foreach (\array_slice($this->values, 0, (int) ((\count($this->values) * 2) / 3)) as $v) {
            $sum += (1 - $v / $steady) * $this->stepS;
        }

        return $sum;
    }

    /** First time the curve passes $share of the steady value, in seconds; null when it never does. */
    public function crossing(float $share): ?float
    {
        $level = $share * $this->steady();
        $before = 0.0;
        foreach ($this->values as $i => $v) {
            if ($v >= $level) {
                return 0 === $i ? 0.0 : ($i - 1 + ($level - $before) / max(1e-12, $v - $before)) * $this->stepS;
            }
            $before = $v;
        }

        return null;
    }

    /**
     * Integral of the absolute error against the steady value (Graham and Lathrop 1953), s: a pure delay has its own length,
     * a first-order lag its time constant; overshoot and ringing add to it. Taken to twice the settling time, as what
     * follows is noise.
     */
    private function error(?float $settlingS): float
    {
        $steady = $this->steady();
        if (abs($steady) < 1e-6) {
            return 0.0;
        }
        $last = null === $settlingS ? \count($this->values) : min(\count($this->values), (int) ceil((2 * $settlingS) / $this->stepS) + 1);
        $sum = 0.0;
        for ($i = 0; $i < $last; ++$i) {
            // Trapezoid: the first sample stands for half a step.
            $sum += (0 === $i ? 0.5 : 1.0) * abs(1 - $this->values[$i] / $steady);
        }

        return $sum * $this->stepS;
    }

    public function numbers(): StepNumbers
    {
        $steady = $this->steady();
        $top = 0;
        foreach ($this->values as $i => $v) {
            if ($v > $this->values[$top]) {
                $top = $i;
            }
        }
        $peak = $this->values[$top];
        $at = (float) $top;
        if ($top > 0 && $top < \count($this->values) - 1) {
            $l = $this->values[$top - 1];
            $r = $this->values[$top + 1];
            $curve = $l - 2 * $peak + $r;
            if ($curve < 0) {
                $shift = (0.5 * ($l - $r)) / $curve;
                $at += $shift;
                $peak -= 0.25 * ($l - $r) * $shift;
            }
        }
        $settled = null;
        for ($i = \count($this->values) - 1; $i >= 0; --$i) {
            if (abs($this->values[$i] - $steady) > 0.05 * abs($steady)) {
                $settled = $i + 1 < \count($this->values) * 0.9 ? ($i + 1) * $this->stepS * 1e3 : null;
                break;
            }
        }
        $delay = $this->crossing(0.5);
        $low = $this->crossing(0.1);
        $high = $this->crossing(0.9);

        return new StepNumbers(
            null === $delay ? null : $delay * 1e3,
            null === $low || null === $high ? null : ($high - $low) * 1e3,
            $peak,
            $at * $this->stepS * 1e3,
            $settled,
            $steady,
            $this->error(null === $settled ? null : $settled / 1e3) * 1e3,
        );
    }
}
