<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/** The periodic Hann window (Oppenheim and Schafer, Discrete-Time Signal Processing, 7.5). */
final readonly class HannWindow
{
    /**
     * @param list<float> $weights 0 to 1, one a sample
     * @param float       $power   Σ weight²
     */
    private function __construct(public array $weights, public float $power)
    {
    }

    public static function ofSize(int $samples): self
    {
        $weights = [];
        $power = 0.0;
        for ($i = 0; $i < $samples; ++$i) {
            $w = 0.5 - 0.5 * cos((2 * \M_PI * $i) / $samples);
            $weights[] = $w;
            $power += $w * $w;
        }

        return new self($weights, $power);
    }
}
