<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Signal\HannWindow;
use Ortholex\Core\Signal\RealFft;

/** How the board's firmware follows the strongest peaks of one axis: a short spectrum, now and then. */
final class TrackingNotches
{
    /** It looks at so much at once, s, and so often, Hz. */
    private const LOOKS_AT_S = 0.128;

    private const LOOKS_HZ = 20.0;

    private readonly int $samples;
    private readonly int $hop;
    private readonly RealFft $fft;
    private readonly HannWindow $window;

    /** The bins of its band. */
    private readonly int $first;

    private readonly int $last;

    /** @var list<float> */
    private array $buffer = [];

    /** @var array<int, float> where the notches stand, Hz */
    public array $centres;

    /** @param float $rateHz at which rates are pushed */
    public function __construct(
        private readonly int $count,
        float $lowHz,
        float $highHz,
        private readonly float $rateHz,
    ) {
        $this->samples = (int) max(16, 2 ** round(log(self::LOOKS_AT_S * $rateHz, 2)));
        $this->hop = max(1, (int) min($this->samples, $rateHz / self::LOOKS_HZ));
        $this->fft = RealFft::ofSize($this->samples);
        $this->window = HannWindow::ofSize($this->samples);
        $this->first = max(0, (int) ceil(($lowHz * $this->samples) / $rateHz));
        $this->last = min($this->samples >> 1, (int) floor(($highHz * $this->samples) / $rateHz));
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
        if (\count($this->buffer) < $this->samples) {
            return false;
        }
        $this->look($this->buffer);
        $this->buffer = \array_slice($this->buffer, $this->hop);

        return true;
    }

    /**
     * A whole run at once.
     *
     * @param list<float> $rate
     *
     * @return array<int, array<int, float>> where the notches stand from a sample on, Hz, by that sample; from 0
     */
    public function over(array $rate): array
    {
        $at = [0 => $this->centres];
        for ($end = $this->samples, $n = \count($rate); $end <= $n; $end += $this->hop) {
            $this->look(\array_slice($rate, $end - $this->samples, $this->samples));
            $at[$end - 1] = $this->centres;
        }

        return $at;
    }

    /** @param list<float> $window */
    private function look(array $window): void
    {
        $weights = $this->window->weights;
        foreach ($window as $i => $v) {
            $window[$i] = $v * $weights[$i];
        }
        [$re, $im] = $this->fft->forward($window);
        $power = array_fill(0, ($this->samples >> 1) + 1, 0.0);
        for ($k = $this->first; $k <= $this->last; ++$k) {
            $power[$k] = $re[$k] * $re[$k] + $im[$k] * $im[$k];
        }
        $found = [];
        for ($p = 0; $p < $this->count; ++$p) {
            $best = (int) array_search(max(0.0, ...$power), $power, true);
            if ($power[$best] <= 0) {
                break;
            }
            $l = $power[max(0, $best - 1)];
            $r = $power[min(\count($power) - 1, $best + 1)];
            $found[] = (($best + ($r - $l) / max(1e-9, 2 * ($l + $r + $power[$best]))) * $this->rateHz) / $this->samples;
            for ($k = max(0, $best - 3); $k <= min(\count($power) - 1, $best + 3); ++$k) {
                $power[$k] = 0.0;
            }
        }
        sort($found);
        foreach ($found as $i => $hz) {
            $this->centres[$i] += 0.5 * ($hz - $this->centres[$i]);
        }
    }
}
