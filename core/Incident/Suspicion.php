<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

/** A stretch of a run in which something went wrong, and what is suspected so far. */
final readonly class Suspicion
{
    /**
     * @param int               $from       first step
     * @param int               $to         last step
     * @param array<int, float> $likelihood by motor, where a loss explains the stretch; empty for rotation alone
     * @param int|null          $stopped    motor whose logged speed says that it stopped
     */
    private function __construct(public FlightRun $run, public int $from, public int $to, public array $likelihood, public ?int $stopped)
    {
    }

    public static function ofRotation(FlightRun $run, int $from, int $to): self
    {
        return new self($run, $from, $to, [], null);
    }

    /** @param array<int, float> $likelihood log-likelihood ratio of each motor's loss over the stretch */
    public static function ofLoss(FlightRun $run, int $from, int $to, array $likelihood): self
    {
        return new self($run, $from, $to, $likelihood, null);
    }

    public static function ofRpm(FlightRun $run, int $from, int $to, int $motor): self
    {
        return new self($run, $from, $to, [], $motor);
    }

    public function until(int $to): self
    {
        return new self($this->run, $this->from, $to, $this->likelihood, $this->stopped);
    }
}
