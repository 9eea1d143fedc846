<?php

declare(strict_types=1);

namespace Ortholex\Core\Lag;

use Ortholex\Core\Signal\Fft;

/** Delay of one signal against another by cross-correlation with a parabolic peak (Oppenheim and Schafer). */
final readonly class Lag
{
    /**
     * @param list<float> $reference
     * @param list<float> $follower  as long as $reference
     *
     * @return float|null seconds, positive when $follower comes later; null when either is constant or they do not correlate
     */
    public static function between(array $reference, array $follower, float $rateHz, float $mostS = 0.1): ?float
    {
        $count = min(\count($reference), \count($follower));
        if ($count < 16) {
            return null;
        }
        $fft = Fft::ofSize(Fft::sizeFor($count + (int) ($mostS * $rateHz) + 2));
        $meanX = array_sum($reference) / $count;
        $meanY = array_sum($follower) / $count;
        $x = $y = array_fill(0, $fft->size, 0.0);
        for ($i = 0; $i < $count; ++$i) {
            $x[$i] = $reference[$i] - $meanX;
            $y[$i] = $follower[$i] - $meanY;
        }
        [$xr, $xi, $yr, $yi] = $fft->twoReal(array_values($x), array_values($y));
        $half = $fft->size >> 1;
        $re = $im = array_fill(0, $fft->size, 0.0);
        for ($k = 0; $k <= $half; ++$k) {
            $r = $xr[$k] * $yr[$k] + $xi[$k] * $yi[$k];
            $m = $xr[$k] * $yi[$k] - $xi[$k] * $yr[$k];
            $re[$k] = $r;
            $im[$k] = $m;
            if ($k > 0 && $k < $half) {
                $re[$fft->size - $k] = $r;
                $im[$fft->size - $k] = -$m;
            }
        }
        [$correlation] = $fft->inverse(array_values($re), array_values($im));
        $reach = (int) ($mostS * $rateHz);
        $best = 0;
        $at = static fn (int $lag): float => $correlation[$lag < 0 ? $lag + $fft->size : $lag];
        for ($lag = -$reach; $lag <= $reach; ++$lag) {
            if ($at($lag) > $at($best)) {
                $best = $lag;
            }
        }
        if ($at($best) <= 0 || abs($best) === $reach) {
            return null;
        }
        $l = $at($best - 1);
        $r = $at($best + 1);
        $curve = $l - 2 * $at($best) + $r;

        return ($best + ($curve < 0 ? (0.5 * ($l - $r)) / $curve : 0.0)) / $rateHz;
    }
}
