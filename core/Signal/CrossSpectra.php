<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/** Auto- and cross-spectra of two signals under a taper (Bendat and Piersol, Random Data, ch. 5). */
final class CrossSpectra
{
    /**
     * One window, not scaled.
     *
     * @param list<float> $x     as long as the transform
     * @param list<float> $y     of the same time
     * @param list<float> $taper weights of the window
     * @param int         $bins  highest bin wanted
     *
     * @return array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>} of bins 0 to $bins: power of either, real and
     *                                                                                   imaginary part of conj(X)·Y
     */
    public static function of(Fft $fft, array $x, array $y, array $taper, int $bins): array
    {
        for ($i = 0, $n = $fft->size; $i < $n; ++$i) {
            $x[$i] *= $taper[$i];
            $y[$i] *= $taper[$i];
        }
        [$xr, $xi, $yr, $yi] = $fft->twoReal($x, $y, $bins);
        $xx = $yy = $cr = $ci = [];
        for ($k = 0; $k <= $bins; ++$k) {
            $xx[] = $xr[$k] * $xr[$k] + $xi[$k] * $xi[$k];
            $yy[] = $yr[$k] * $yr[$k] + $yi[$k] * $yi[$k];
            $cr[] = $xr[$k] * $yr[$k] + $xi[$k] * $yi[$k];
            $ci[] = $xr[$k] * $yi[$k] - $xi[$k] * $yr[$k];
        }

        return ['xx' => $xx, 'yy' => $yy, 'cr' => $cr, 'ci' => $ci];
    }
}
