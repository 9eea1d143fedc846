<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

use Ortholex\Core\Signal\Exception\InvalidRate;
use Ortholex\Core\Signal\Exception\RunsTooShort;

/**
 * Power spectral density by averaged modified periodograms (P. D. Welch, 1967): periodic Hann window,
 * 50 % overlap, mean removed per segment, one-sided.
 */
final readonly class Welch
{
    private Fft $fft;
    private HannWindow $window;

    private function __construct(public int $segment, public float $rateHz)
    {
        $this->fft = Fft::ofSize($segment);
        $this->window = HannWindow::ofSize($segment);
    }

    /** @throws SignalError unless the segment is a power of two of at least 4 and the rate positive */
    public static function withSegment(int $segment, float $rateHz): self
    {
        if ($rateHz <= 0) {
            throw InvalidRate::of($rateHz);
        }

        return new self($segment, $rateHz);
    }

    /** The shortest power-of-two segment whose bins are at most $hz apart. */
    public static function withResolution(float $hz, float $rateHz): self
    {
        return self::withSegment(max(4, Fft::sizeFor((int) ceil($rateHz / $hz))), $rateHz);
    }

    /**
     * @param list<list<float>> $runs gap-free stretches; a segment never spans two
     *
     * @throws SignalError when no stretch holds one segment
     */
    public function density(array $runs): Spectrum
    {
        $n = $this->segment;
        $hop = $n >> 1;
        $sum = array_fill(0, $n, 0.0);
        $segments = 0;
        $first = null;
        foreach ($runs as $run) {
            for ($at = 0, $last = \count($run) - $n; $at <= $last; $at += $hop) {
                ++$segments;
                $part = $this->tapered(\array_slice($run, $at, $n));
                if (null === $first) {
                    $first = $part;
                    continue;
                }
                $sum = $this->added($sum, $first, $part);
                $first = null;
            }
        }
        if (null !== $first) {
            $sum = $this->added($sum, $first, array_fill(0, $n, 0.0));
        }
        if (0 === $segments) {
            throw RunsTooShort::of($n, $this->rateHz);
        }
        $scale = 1.0 / ($this->rateHz * $this->window->power * $segments);
        $density = [$sum[0] * $scale];
        for ($k = 1; $k < $hop; ++$k) {
            $density[] = ($sum[$k] + $sum[$n - $k]) * $scale;
        }
        $density[] = $sum[$hop] * $scale;

        return Spectrum::of($this->rateHz / $n, $density, $segments);
    }

    /**
     * @param list<float> $part
     *
     * @return list<float> without its mean, tapered
     */
    private function tapered(array $part): array
    {
        $n = $this->segment;
        $mean = array_sum($part) / $n;
        $window = $this->window->weights;
        // In its place: a list that grows takes half as long again.
        for ($i = 0; $i < $n; ++$i) {
            $part[$i] = ($part[$i] - $mean) * $window[$i];
        }

        return array_values($part);
    }

    /**
     * Two segments in one transform, as its real and imaginary part: |X_k|² + |Y_k|² = ½(|Z_k|² + |Z_(N−k)|²).
     *
     * @param list<float> $sum |Z|² so far, by bin
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return list<float>
     */
    private function added(array $sum, array $x, array $y): array
    {
        [$re, $im] = $this->fft->complex($x, $y);
        for ($k = 0, $n = $this->segment; $k < $n; ++$k) {
            $sum[$k] += $re[$k] * $re[$k] + $im[$k] * $im[$k];
        }

        return array_values($sum);
    }
}
