<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Signal\Spectrum;

/** One axis of a log, run through a chain. */
final readonly class WhatIfAxis
{
    /**
     * @param Spectrum       $measured    before the filters, (deg/s)²/Hz
     * @param Spectrum       $filtered    behind them
     * @param float          $measuredDps RMS from 20 Hz to half the log's rate
     * @param float          $residualDps the same, of what is left
     * @param float          $delayMs     phase delay of the rate path at 30 Hz, its notches where the flight had them
     * @param float          $dDelayMs    of the D path behind it
     * @param LoopNoise|null $noise       where gains are known
     */
    public function __construct(
        public Spectrum $measured,
        public Spectrum $filtered,
        public float $measuredDps,
        public float $residualDps,
        public float $delayMs,
        public float $dDelayMs,
        public ?LoopNoise $noise,
    ) {
    }
}
