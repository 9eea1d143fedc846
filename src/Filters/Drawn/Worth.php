<?php

declare(strict_types=1);

namespace Ortholex\App\Filters\Drawn;

/** What one filter of a chain takes out of a log, and costs: the chain with it against the chain without. */
final readonly class Worth
{
    /** Less than this it finds nothing to cut. */
    private const NOTHING_DPS = 0.01;

    /**
     * @param float $withDps    root of the mean square over the axes, deg/s
     * @param float $costsMs    at 30 Hz
     */
    public function __construct(public float $withDps, public float $withoutDps, public float $costsMs)
    {
    }

    public function inWords(): string
    {
        return abs($this->withoutDps - $this->withDps) < self::NOTHING_DPS
            ? \sprintf('In this log it finds nothing more to cut, and costs %.2f ms.', $this->costsMs)
            : \sprintf(
                'Without it %.2f deg/s would be left instead of %.2f; it costs %.2f ms.',
                $this->withoutDps,
                $this->withDps,
                $this->costsMs,
            );
    }
}
