<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Controller;

/** From commands about the axes and throttle to outputs. With air mode the throttle gives way first; without, it is never raised. */
final readonly class Mixing
{
    public function __construct(private FlightControl $control)
    {
    }

    /**
     * @param array{float, float, float} $command  % about each axis
     * @param float                      $throttle %
     * @param float                      $idle     least output, %
     *
     * @return list<float> outputs of the frame that is believed, %
     */
    public function outputs(array $command, float $throttle, float $idle, bool $airMode): array
    {
        $low = \INF;
        $high = -\INF;
        $want = [];
        foreach ($this->control->mixer as $share) {
            $v = $share[0] * $command[0] + $share[1] * $command[1] + $share[2] * $command[2];
            $want[] = $v;
            $low = min($low, $v);
            $high = max($high, $v);
        }
        $top = $this->control->topPct;
        $room = $top - $idle;
        $scale = $high - $low > $room ? $room / ($high - $low) : 1.0;
        $base = $idle + ($throttle * $room) / 100;
        if ($airMode) {
            $base = max($idle - $low * $scale, min($top - $high * $scale, $base));
        } else {
            $base = min($top - $high * $scale, $base);
        }
        $send = [];
        foreach ($want as $v) {
            $send[] = max($idle, min($top, $base + $v * $scale));
        }

        return $send;
    }
}
