<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Modes;

use Ortholex\Bench\Flight\Controller\FlightControl;

/** The sticks of a card that was written before: armed from its first frame to its last, its levers where they stand. */
final class ScriptedCommands extends Commands
{
    private float $next = 0.0;

    /**
     * @param list<array<int, float>> $frames roll, pitch, yaw and throttle, µs
     * @param float                   $every  steps of the loop from frame to frame
     */
    public function __construct(FlightControl $control, private readonly array $frames, private readonly float $every)
    {
        parent::__construct($control);
    }

    public function hear(int $step): void
    {
        if ($step >= $this->next) {
            $this->next += $this->every;
            $this->take($this->frames[min((int) round($step / $this->every), \count($this->frames) - 1)]);
        }
    }
}
