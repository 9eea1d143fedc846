<?php

declare(strict_types=1);

namespace Ortholex\Bench\Drive;

/**
 * One motor with its ESC at low output: when it starts, how fast it turns, how unsteadily.
 *
 * A rotor driven without sensors is followed by its own voltage, which is faint at low speed: below its starting
 * output it twitches, just above it turns unsteadily, and the spread falls away within about one percent of output.
 */
final readonly class Rotor
{
    public function __construct(private int $pad, private bool $driven, private bool $weak, private float $fullRpm)
    {
    }

    /** Lowest output at which it turns at all, %. */
    public function startsAt(): float
    {
        // No two bearings are alike: 2.3 to 3.2 %, by pad.
        return 2.3 + 0.9 * fmod($this->pad * 0.618, 1.0) + ($this->weak ? 2.2 : 0.0);
    }

    public function turnsAt(float $pct): bool
    {
        return $this->driven && $pct > $this->startsAt() - ($this->weak ? 2.5 : 0.0);
    }

    /**
     * Mechanical rpm at some instants, as it really turns; 0 where it stood.
     *
     * @return list<float>
     */
    public function rpm(float $pct, float $from, int $count): array
    {
        $rpm = [];
        $over = $pct - $this->startsAt();
        $spread = 0.009 + 0.22 * exp(-max(0.0, $over) / 0.45) + ($this->weak ? 0.05 : 0.0);
        for ($i = 0; $i < $count; ++$i) {
            $t = $from + 0.005 * $i;
            $stalls = !$this->turnsAt($pct) || ($this->weak && sin(41.0 * $t + $this->pad) > 0.8 && $pct < 9);
            $rpm[] = $stalls
                ? 0.0
                : max(
                    0.0,
                    $this->fullRpm *
                        (1 + 0.015 * sin(2.4 * $this->pad)) *
                        0.01 *
                        max($pct, 0.8) *
                        (1 + $spread * (0.8 * sin(57.3 * $t + 2 * $this->pad) + 0.6 * sin(131.7 * $t) + 0.4 * sin(411.3 * $t))),
                );
        }

        return $rpm;
    }
}
