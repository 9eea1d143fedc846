<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Position;

use Ortholex\Bench\Flight\Sensors\NoisePool;

/**
 * Where the board believes to be: five fixes a second that wander slowly about the truth (Gauss and Markov), and between them what its
 * accelerometer carries on.
 */
final class PositionReceiver
{
    /** From fix to fix, s. */
    private const EVERY_S = 0.2;

    /** The error lasts about so long, s. */
    private const LASTS_S = 40.0;

    private const SPEED_LASTS_S = 4.0;
    private const SPEED_MS = 0.08;

    /** The place is drawn to each new fix by this share. */
    private const DRAWN = 0.3;

    /** @var array{float, float}|null north and east, m; null while it does not know */
    public ?array $at = null;

    /** @var array{float, float} m/s */
    public array $speed = [0.0, 0.0];

    /** @var array{float, float} */
    private array $error;

    /** @var array{float, float} */
    private array $speedError = [0.0, 0.0];

    private float $next = 0.0;
    private readonly NoisePool $noise;

    public function __construct(public readonly Positioning $sky)
    {
        $this->noise = new NoisePool($sky->seed);
        $this->noise->have(2);
        $this->error = [$sky->wanderM * $this->random(), $sky->wanderM * $this->random()];
    }

    /**
     * @param array{float, float, float} $at    truth: north, east, down
     * @param array{float, float, float} $speed
     */
    public function look(float $t, float $dt, array $at, array $speed): void
    {
        if (!$this->sky->knows($t)) {
            $this->at = null;

            return;
        }
        if (null !== $this->at) {
            $this->at = [$this->at[0] + $this->speed[0] * $dt, $this->at[1] + $this->speed[1] * $dt];
        }
        if ($t < $this->next) {
            $this->speed = [$speed[0] + $this->speedError[0], $speed[1] + $this->speedError[1]];

            return;
        }
        $this->next = $t + self::EVERY_S;
        $this->noise->have(4);
        $keep = exp(-self::EVERY_S / self::LASTS_S);
        $keepSpeed = exp(-self::EVERY_S / self::SPEED_LASTS_S);
        $fix = [0.0, 0.0];
        foreach ([0, 1] as $i) {
            $this->error[$i] = $keep * $this->error[$i] + $this->sky->wanderM * sqrt(1 - $keep ** 2) * $this->random();
            $this->speedError[$i] = $keepSpeed * $this->speedError[$i] + self::SPEED_MS * sqrt(1 - $keepSpeed ** 2) * $this->random();
            $fix[$i] = $at[$i] + $this->error[$i];
        }
        $this->speed = [$speed[0] + $this->speedError[0], $speed[1] + $this->speedError[1]];
        $was = $this->at ?? $fix;
        $this->at = [$was[0] + self::DRAWN * ($fix[0] - $was[0]), $was[1] + self::DRAWN * ($fix[1] - $was[1])];
    }

    private function random(): float
    {
        return $this->noise->values[$this->noise->at++];
    }
}
