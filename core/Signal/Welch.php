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
    private RealFft $fft;
    private HannWindow $window;

    private function __construct(public int $segment, public float $rateHz)
    {
        $this->fft = RealFft::ofSize($segment);
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
        $sum = array_fill(0, $hop + 1, 0.0);
        $segments = 0;
        $window = $this->window->weights;
        foreach ($runs as $run) {
            for ($at = 0, $last = \count($run) - $n; $at <= $last; $at += $hop) {
                $part = \array_slice($run, $at, $n);
                $mean = array_sum($part) / $n;
                foreach ($window as $i => $w) {
                    $part[$i] = ($part[$i] - $mean) * $w;
                }
                [$re, $im] = $this->fft->forward($part);
                foreach ($re as $k => $r) {
                    $m = $im[$k];
                    $sum[$k] += $r * $r + $m * $m;
                }
                ++$segments;
            }
        }
        if (0 === $segments) {
            throw RunsTooShort::of($n, $this->rateHz);
        }
        $scale = 1.0 / ($this->rateHz * $this->window->power * $segments);
        foreach ($sum as $k => $value) {
            $sum[$k] = $value * $scale * (0 === $k || $k === $hop ? 1.0 : 2.0);
        }

        return Spectrum::of($this->rateHz / $n, array_values($sum), $segments);
    }
}
