<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

/** Noise of one axis behind the controller: of D, and of P and D together as the motors hear it; % RMS of output. */
final readonly class LoopNoise
{
    public function __construct(public float $dPct, public float $motorsPct)
    {
    }
}
