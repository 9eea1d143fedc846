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
        $even = $odd = [];
        for ($i = 0, $j = 0; $i < $half; ++$i, $j += 2) {
            $even[] = $x[$j];
            $odd[] = $x[$j + 1];
        }
        [$zr, $zi] = $this->half->complex($even, $odd);
        $zr[] = $zr[0];
        $zi[] = $zi[0];
        $cos = $this->cos;
        $sin = $this->sin;
        $re = $im = [];
        for ($k = 0; $k <= $half; ++$k) {
            $j = $half - $k;
            $ar = $zr[$k];
            $ai = $zi[$k];
            $br = $zr[$j];
            $bi = $zi[$j];
            $sr = $ar - $br;
            $si = $ai + $bi;
            $c = $cos[$k];
            $s = $sin[$k];
            // X = ½(Z + Z*) − ½i·e^(−iθ)(Z − Z*), where Z* is the mirrored conjugate.
            $re[] = 0.5 * ($ar + $br + $si * $c - $sr * $s);
            $im[] = 0.5 * ($ai - $bi - $sr * $c - $si * $s);
        }

        return [$re, $im];
    }
}
