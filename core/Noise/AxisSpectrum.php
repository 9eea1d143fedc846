<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Signal\Peak;
use Ortholex\Core\Signal\Spectrum;
use Ortholex\Core\Signal\Welch;

/** Spectrum of one rate trace with its named peaks and its residual noise (RMS from 20 Hz to half the rate). */
final readonly class AxisSpectrum
{
    public const RESIDUAL_FROM_HZ = 20.0;
    public const RESOLUTION_HZ = 2.0;

    /** @param list<Peak> $peaks */
    private function __construct(public Spectrum $spectrum, public array $peaks, public float $rmsDps)
    {
    }

    /** @param list<list<float>> $runs gap-free stretches of the trace, deg/s */
    public static function of(array $runs, float $rateHz): self
    {
        $spectrum = Welch::withResolution(self::RESOLUTION_HZ, $rateHz)->density($runs);

        return new self($spectrum, $spectrum->peaks(self::RESIDUAL_FROM_HZ), sqrt($spectrum->power(self::RESIDUAL_FROM_HZ, $rateHz / 2)));
    }
}
