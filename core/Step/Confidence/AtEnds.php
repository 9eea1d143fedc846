<?php

declare(strict_types=1);

namespace Ortholex\Core\Step\Confidence;

/** How often outputs stood at their ends while a step was measured: there the loop is not the one that its gains make. */
final readonly class AtEnds
{
    /**
     * @param float                $share  of the time of used windows, 0 to 1
     * @param array<string, float> $bySize share of the windows of that size that stood there for a tenth of their time
     */
    public function __construct(public float $share, public array $bySize)
    {
    }
}
