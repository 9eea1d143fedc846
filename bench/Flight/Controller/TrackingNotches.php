<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Controller;

use Ortholex\Core\Signal\RealFft;

/** How the board's firmware follows the strongest peaks of one axis: a short spectrum, now and then. */
final class TrackingNotches
{
    private const SAMPLES = 256;

    private RealFft $fft;

    /** @var list<float> */
    private array $buffer = [];

    /** @var array<int, float> where the notches stand, Hz */
    public array $centres;

    public function __construct(
        private readonly int $count,
        private readonly float $lowHz,
        private readonly float $highHz,
        private readonly float $rateHz,
    ) {
        $this->fft = RealFft::ofSize(self::SAMPLES);
        $centres = [];
        for ($i = 0; $i < $count; ++$i) {
            $centres[] = $lowHz + (($highHz - $lowHz) * ($i + 1)) / ($count + 1);
        }
        $this->centres = $centres;
    }

    /** @return bool whether the notches moved */
    public function push(float $rate): bool
    {
        $this->buffer[] = $rate;
        if (\count($this->buffer) < self::SAMPLES) {
            return false;
        }
        $window = $this->buffer;
        $this->buffer = \array_slice(
            $this->buffer,
            self::SAMPLES - (int) ($this->rateHz / 20) > 0 ? (int) min(self::SAMPLES, $this->rateHz / 20) : self::SAMPLES,
        );
        foreach ($window as $i => $v) {
            $window[$i] = $v * (0.5 - 0.5 * cos((2 * \M_PI * $i) / self::SAMPLES));
        }
        [$re, $im] = $this->fft->forward($window);
        $power = [];
        foreach ($re as $k => $r) {
            $hz = ($k * $this->rateHz) / self::SAMPLES;
            $power[] = $hz >= $this->lowHz && $hz <= $this->highHz ? $r * $r + $im[$k] * $im[$k] : 0.0;
        }
        $found = [];
        for ($p = 0; $p < $this->count; ++$p) {
            $best = (int) array_search(max([0.0, ...$power]), $power, true);
            if ($power[$best] <= 0) {
                break;
            }
            $l = $power[max(0, $best - 1)];
            $r = $power[min(\count($power) - 1, $best + 1)];
            $found[] = (($best + ($r - $l) / max(1e-9, 2 * ($l + $r + $power[$best]))) * $this->rateHz) / self::SAMPLES;
            for ($k = max(0, $best - 3); $k <= min(\count($power) - 1, $best + 3); ++$k) {
                $power[$k] = 0.0;
            }
        }
        sort($found);
        foreach ($found as $i => $hz) {
            $this->centres[$i] += 0.5 * ($hz - $this->centres[$i]);
        }

        return true;
    }
}
