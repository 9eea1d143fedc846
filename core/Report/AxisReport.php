<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Step\Confidence\Confidence;
use Ortholex\Core\Step\StepResult;

/** Step and spectra of one axis; a part is null where its traces were not logged or carry too little. */
final readonly class AxisReport
{
    public function __construct(
        public Axis $axis,
        public ?StepResult $step,
        public Confidence $confidence,
        public ?AxisSpectrum $measured,
        public ?AxisSpectrum $filtered,
        public ?float $filterDelayMs,
    ) {
    }

    /** How much quieter the filters make this axis above 20 Hz, in dB. */
    public function attenuationDb(): ?float
    {
        return null === $this->measured || null === $this->filtered || $this->filtered->rmsDps <= 0 || $this->measured->rmsDps <= 0
            ? null
            : 20 * log10($this->measured->rmsDps / $this->filtered->rmsDps);
    }
}
