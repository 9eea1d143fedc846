<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

use Ortholex\Core\Signal\Exception\InvalidSize;

/** Fourier transform of N real samples by one complex transform of N/2 (Oppenheim and Schafer, ch. 9). */
final readonly class RealFft
{
    private Fft $half;

    /** @var list<float> */
    private array $cos;

    /** @var list<float> */
    private array $sin;

    private function __construct(public int $size)
    {
        $this->half = Fft::ofSize($size >> 1);
        $cos = $sin = [];
        for ($k = 0; $k <= $size >> 1; ++$k) {
            $cos[] = cos((2 * \M_PI * $k) / $size);
            $sin[] = sin((2 * \M_PI * $k) / $size);
        }
        $this->cos = $cos;
        $this->sin = $sin;
    }

    /** @throws SignalError unless $size is a power of two of at least 4 */
    public static function ofSize(int $size): self
    {
        if ($size < 4 || 0 !== ($size & ($size - 1))) {
            throw InvalidSize::of($size, 4);
        }

        return new self($size);
    }

    /**
     * @param array<int, float> $x N real samples
     *
     * @return array{list<float>, list<float>} real and imaginary parts of bins 0..N/2
     */
    public function forward(array $x): array
    {
        $half = $this->size >> 1;
        [$re, $im] = $this->half->pairs($x);
        $cos = $this->cos;
        $sin = $this->sin;
        [$ar, $ai] = [$re[0], $im[0]];
        // X = ½(Z + Z*) − ½i·e^(−iθ)(Z − Z*), where Z* is the mirrored conjugate; a bin and its mirror image at once.
        for ($k = 1, $j = $half - 1; $k <= $j; ++$k, --$j) {
            $br = 0.5 * $re[$k];
            $bi = 0.5 * $im[$k];
            $cr = 0.5 * $re[$j];
            $ci = 0.5 * $im[$j];
            $er = $br + $cr;
            $ei = $bi - $ci;
            $sr = $br - $cr;
            $si = $bi + $ci;
            $c = $cos[$k];
            $s = $sin[$k];
            $or = $si * $c - $sr * $s;
            $oi = $sr * $c + $si * $s;
            $re[$k] = $er + $or;
            $im[$k] = $ei - $oi;
            $re[$j] = $er - $or;
            $im[$j] = -$ei - $oi;
        }
        $re[0] = $ar + $ai;
        $im[0] = 0.0;
        $re[$half] = $ar - $ai;
        $im[$half] = 0.0;

        return [array_values($re), array_values($im)];
    }

    /**
     * The signal whose transform that is, scaled by 1/N.
     *
     * @param array<int, float> $re real parts of bins 0 to N/2
     * @param array<int, float> $im imaginary parts; those of bin 0 and N/2 count for nothing, as a real signal has none there
     *
     * @return list<float> N samples
     */
    public function inverse(array $re, array $im): array
    {
        $half = $this->size >> 1;
        $cos = $this->cos;
        $sin = $this->sin;
        $zr = $zi = array_fill(0, $half, 0.0);
        $zr[0] = 0.5 * ($re[0] + $re[$half]);
        $zi[0] = 0.5 * ($re[0] - $re[$half]);
        for ($k = 1; $k < $half; ++$k) {
            $j = $half - $k;
            $dr = $re[$k] - $re[$j];
            $di = $im[$k] + $im[$j];
            $c = $cos[$k];
            $s = $sin[$k];
            // Even samples are those of ½(X + X*), odd ones those of ½e^(iθ)(X − X*): together as real and imaginary part.
            $zr[$k] = 0.5 * ($re[$k] + $re[$j] - $dr * $s - $di * $c);
            $zi[$k] = 0.5 * ($im[$k] - $im[$j] + $dr * $c - $di * $s);
        }
        [$even, $odd] = $this->half->inverse($zr, $zi);
        $x = array_fill(0, $this->size, 0.0);
        for ($i = $j = 0; $i < $half; ++$i, $j += 2) {
            $x[$j] = $even[$i];
            $x[$j + 1] = $odd[$i];
        }

        return array_values($x);
    }
}
