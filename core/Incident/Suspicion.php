<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Incident\Motion\FlightRun;

/** A stretch of a run in which something went wrong, and which motor's loss it looks like, if any. */
final readonly class Suspicion
{
    /**
     * @param int               $from      first step
     * @param int               $to        last step
     * @param int|null          $motor     whose loss it is; null for rotation alone
     * @param array<int, float> $scores    by motor: log-likelihood ratio of its loss, early in the stretch
     * @param bool              $bySpeed   whether its logged speed speaks for the loss
     * @param float             $share     of its thrust that was left
     */
    private function __construct(
        public FlightRun $run,
        public int $from,
        public int $to,
        public ?int $motor,
        public array $scores,
        public bool $bySpeed,
        public float $share,
    ) {
    }

    public static function ofRotation(FlightRun $run, int $from, int $to): self
    {
        return new self($run, $from, $to, null, [], false, 1.0);
    }

    /** @param array<int, float> $scores */
    public static function ofLoss(FlightRun $run, int $from, int $to, int $motor, array $scores, bool $bySpeed, float $share): self
    {
        return new self($run, $from, $to, $motor, $scores, $bySpeed, $share);
    }

    public function since(int $from): self
    {
        return new self($this->run, $from, max($from, $this->to), $this->motor, $this->scores, $this->bySpeed, $this->share);
    }

    public function until(int $to): self
    {
        return new self($this->run, $this->from, $to, $this->motor, $this->scores, $this->bySpeed, $this->share);
    }
}
