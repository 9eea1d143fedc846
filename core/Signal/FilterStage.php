<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

use Ortholex\Core\Signal\Exception\InvalidFilter;

/**
 * One discrete filter: y[n] = b0·x[n] + b1·x[n−1] + b2·x[n−2] − a1·y[n−1] − a2·y[n−2].
 *
 * Second-order low-pass and notch are the public-domain biquads of the bilinear transform; the first-order
 * low-pass is y += α(x − y) with α = dt / (1/(2π·fc) + dt).
 */
final readonly class FilterStage
{
    private function __construct(public float $b0, public float $b1, public float $b2, public float $a1, public float $a2)
    {
    }

    /** @throws SignalError unless 0 < cutoff and rate */
    public static function firstOrder(float $cutoffHz, float $rateHz): self
    {
        self::demand($cutoffHz, $rateHz, false);
        $dt = 1.0 / $rateHz;
        $alpha = $dt / (1.0 / (2 * \M_PI * $cutoffHz) + $dt);

        return new self($alpha, 0.0, 0.0, $alpha - 1.0, 0.0);
    }

    /** Butterworth by default (Q = 1/√2). @throws SignalError unless 0 < cutoff < rate/2 and Q > 0 */
    public static function secondOrder(float $cutoffHz, float $rateHz, float $q = \M_SQRT1_2): self
    {
        self::demand($cutoffHz, $rateHz, true, $q);
        $w = (2 * \M_PI * $cutoffHz) / $rateHz;
        $alpha = sin($w) / (2 * $q);
        $a0 = 1 + $alpha;
        $c = cos($w);

        return new self((1 - $c) / 2 / $a0, (1 - $c) / $a0, (1 - $c) / 2 / $a0, (-2 * $c) / $a0, (1 - $alpha) / $a0);
    }

    /**
     * Unity gain but for a zero at the centre.
     *
     * @param float $widthPct between the −3 dB points, over the centre; %
     *
     * @throws SignalError unless 0 < centre < rate/2 and the width is above nothing
     */
    public static function notch(float $centreHz, float $widthPct, float $rateHz): self
    {
        $q = $widthPct > 0 ? 100 / $widthPct : 0.0;
        self::demand($centreHz, $rateHz, true, $q);
        $w = (2 * \M_PI * $centreHz) / $rateHz;
        $alpha = sin($w) / (2 * $q);
        $a0 = 1 + $alpha;
        $c = cos($w);

        return new self(1 / $a0, (-2 * $c) / $a0, 1 / $a0, (-2 * $c) / $a0, (1 - $alpha) / $a0);
    }

    /** @return array{float, float} real and imaginary part of H at $hz */
    public function response(float $hz, float $rateHz): array
    {
        $w = (2 * \M_PI * $hz) / $rateHz;
        $c1 = cos($w);
        $s1 = -sin($w);
        $c2 = cos(2 * $w);
        $s2 = -sin(2 * $w);
        $nr = $this->b0 + $this->b1 * $c1 + $this->b2 * $c2;
        $ni = $this->b1 * $s1 + $this->b2 * $s2;
        $dr = 1 + $this->a1 * $c1 + $this->a2 * $c2;
        $di = $this->a1 * $s1 + $this->a2 * $s2;
        $d = $dr * $dr + $di * $di;

        return [($nr * $dr + $ni * $di) / $d, ($ni * $dr - $nr * $di) / $d];
    }

    private static function demand(float $hz, float $rateHz, bool $belowNyquist, float $q = 1.0): void
    {
        if ($rateHz <= 0 || $hz <= 0 || ($belowNyquist && $hz >= $rateHz / 2)) {
            throw InvalidFilter::outOfRange($hz, $rateHz);
        }
        if ($q <= 0) {
            throw InvalidFilter::q($q);
        }
    }
}
