<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

/** A stretch of blocks that may be a loss of one motor. */
final readonly class LossCandidate
{
    /**
     * @param int                $run   which of the runs
     * @param float              $share of its thrust that is left
     * @param int                $from  first block
     * @param int                $to    last block
     * @param float              $score what the likelihood reached, over what is asked of it
     * @param list<float>        $early log-likelihood ratio of each of its blocks, at first
     * @param SpeedEvidence|null $speed that spoke with
     */
    public function __construct(
        public int $run,
        public int $motor,
        public float $share,
        public int $from,
        public int $to,
        public float $score,
        public array $early,
        public ?SpeedEvidence $speed,
    ) {
    }
}
