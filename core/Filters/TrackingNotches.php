<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\HannWindow;

/** How the board's firmware follows the strongest peaks of one axis: a short spectrum, now and then. */
final class TrackingNotches
{
    /** It looks at so much at once, s, and so often, Hz. */
    private const LOOKS_AT_S = 0.128;

    private const LOOKS_HZ = 20.0;

    /** (deg/s)² in a bin: what is less is what transforms round off. */
    private const NOTHING = 1e-12;

    private readonly int $samples;
    private readonly int $hop;
    private readonly Fft $fft;
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
        $this->fft = Fft::ofSize($this->samples);
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
        $now = $this->tapered($this->buffer);
        [$power] = $this->power($now, $now);
        $this->follow($power);
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
        for ($end = $this->samples, $n = \count($rate); $end <= $n; $end += 2 * $this->hop) {
            // Two looks in one transform.
            $next = $end + $this->hop;
            $one = $this->tapered(\array_slice($rate, $end - $this->samples, $this->samples));
            $two = $next <= $n ? $this->tapered(\array_slice($rate, $next - $this->samples, $this->samples)) : $one;
            [$first, $second] = $this->power($one, $two);
            $this->follow($first);
            $at[$end - 1] = $this->centres;
            if ($next <= $n) {
                $this->follow($second);
                $at[$next - 1] = $this->centres;
            }
        }

        return $at;
    }

    /**
     * @param list<float> $window
     *
     * @return list<float>
     */
    private function tapered(array $window): array
    {
        $out = [];
        foreach ($this->window->weights as $i => $w) {
            $out[] = $window[$i] * $w;
        }

        return $out;
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return array{list<float>, list<float>} 4·|X|² and 4·|Y|², by bin; nothing outside of the band
     */
    private function power(array $x, array $y): array
    {
        [$re, $im] = $this->fft->complex($x, $y);
        $a = $b = array_fill(0, ($this->samples >> 1) + 1, 0.0);
        for ($k = $this->first; $k <= $this->last; ++$k) {
            $j = ($this->samples - $k) & ($this->samples - 1);
            $p = $re[$k] + $re[$j];
            $q = $im[$k] - $im[$j];
            $a[$k] = $p * $p + $q * $q;
            $p = $im[$k] + $im[$j];
            $q = $re[$j] - $re[$k];
            $b[$k] = $p * $p + $q * $q;
        }

        return [array_values($a), array_values($b)];
    }

    /** @param list<float> $power by bin */
    private function follow(array $power): void
    {
        if ($this->first > $this->last) {
            // The band lies above what samples so few can show.
            return;
        }
        $found = [];
        for ($p = 0; $p < $this->count; ++$p) {
            $best = $this->first;
            for ($k = $best + 1; $k <= $this->last; ++$k) {
                if ($power[$k] > $power[$best]) {
                    $best = $k;
                }
            }
            if ($power[$best] <= self::NOTHING) {
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
