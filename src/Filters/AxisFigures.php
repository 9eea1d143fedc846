<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\Core\Filters\LoopNoise;

/** What a chain makes of one axis of a log, and what the staged one would. */
final readonly class AxisFigures
{
    /**
     * @param float      $measured deg/s RMS above 20 Hz
     * @param float      $left     behind the filters of the craft
     * @param float|null $then     as staged; null where that changes nothing
     */
    public function __construct(
        public string $axis,
        public float $measured,
        public float $left,
        public ?float $then,
        public ?LoopNoise $noise,
        public ?LoopNoise $noiseThen,
    ) {
    }
}
