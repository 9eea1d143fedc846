<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Signal\CrossSpectra;
use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\HannWindow;

/**
 * By how much a filtered rate comes after the measured one, where the craft moves: the slope of the phase over frequency in the band
 * where both say the same (Bendat and Piersol, Random Data, ch. 6). Shaking above that band says nothing of it.
 */
final class FilterDelay
{
    private const FROM_HZ = 2.0;
    private const TO_HZ = 45.0;
    private const WINDOW_S = 1.0;
    private const LEAST_WINDOWS = 4;
    private const LEAST_COHERENCE = 0.9;

    /** So many frequencies must say the same. */
    private const LEAST_BINS = 6;

    /** Long flights tell as much in so many windows. */
    private const MOST_WINDOWS = 120;

    /**
     * @param list<float> $measured gap-free, deg/s
     * @param list<float> $filtered of the same time
     *
     * @return float|null s; null where too little moves, or the two have nothing to do with each other
     */
    public static function between(array $measured, array $filtered, float $rateHz): ?float
    {
        $n = 2 ** (int) round(log(self::WINDOW_S * $rateHz, 2));
        $count = intdiv(2 * \count($measured), $n) - 1;
        if ($n < 64 || $count < self::LEAST_WINDOWS) {
            return null;
        }
        $hop = max(intdiv($n, 2), intdiv(\count($measured) - $n, self::MOST_WINDOWS));
        $fft = Fft::ofSize($n);
        $taper = HannWindow::ofSize($n)->weights;
        $first = max(1, (int) ceil((self::FROM_HZ * $n) / $rateHz));
        $last = min(intdiv($n, 2) - 1, (int) floor((self::TO_HZ * $n) / $rateHz));
        $xx = $yy = $cr = $ci = array_fill($first, max(1, $last - $first + 1), 0.0);
        for ($at = 0; $at + $n <= \count($measured); $at += $hop) {
            $one = CrossSpectra::of($fft, \array_slice($measured, $at, $n), \array_slice($filtered, $at, $n), $taper, $last);
            for ($k = $first; $k <= $last; ++$k) {
                $xx[$k] += $one['xx'][$k];
                $yy[$k] += $one['yy'][$k];
                $cr[$k] += $one['cr'][$k];
                $ci[$k] += $one['ci'][$k];
            }
        }
        $sum = $weight = 0.0;
        $bins = 0;
        for ($k = $first; $k <= $last; ++$k) {
            $coherence = $xx[$k] > 0 && $yy[$k] > 0 ? ($cr[$k] ** 2 + $ci[$k] ** 2) / ($xx[$k] * $yy[$k]) : 0.0;
            if ($coherence < self::LEAST_COHERENCE) {
                continue;
            }
            $omega = (2 * \M_PI * $k * $rateHz) / $n;
            // Variance of a phase: (1 − γ²)/(2γ²·windows).
            $w = $coherence / (1 - $coherence + 1e-4);
            $sum -= $w * $omega * atan2($ci[$k], $cr[$k]);
            $weight += $w * $omega * $omega;
            ++$bins;
        }

        return $bins < self::LEAST_BINS || $weight <= 0 ? null : $sum / $weight;
    }
}
