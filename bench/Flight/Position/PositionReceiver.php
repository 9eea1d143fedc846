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
            $north = $this->at[0] + $this->speed[0] * $dt;
            $east = $this->at[1] + $this->speed[1] * $dt;
            $this->at = [$north, $east];
        }
        if ($t >= $this->next) {
            $this->next = $t + self::EVERY_S;
            $this->fix($at);
        }
        $this->speed = [$speed[0] + $this->speedError[0], $speed[1] + $this->speedError[1]];
    }

    /** @param array{float, float, float} $truth */
    private function fix(array $truth): void
    {
        $this->noise->have(4);
        $keep = exp(-self::EVERY_S / self::LASTS_S);
        $fresh = $this->sky->wanderM * sqrt(1 - $keep ** 2);
        $keepSpeed = exp(-self::EVERY_S / self::SPEED_LASTS_S);
        $freshSpeed = self::SPEED_MS * sqrt(1 - $keepSpeed ** 2);
        $this->error = [$keep * $this->error[0] + $fresh * $this->random(), $keep * $this->error[1] + $fresh * $this->random()];
        $this->speedError = [
            $keepSpeed * $this->speedError[0] + $freshSpeed * $this->random(),
            $keepSpeed * $this->speedError[1] + $freshSpeed * $this->random(),
        ];
        $north = $truth[0] + $this->error[0];
        $east = $truth[1] + $this->error[1];
        $was = $this->at ?? [$north, $east];
        $this->at = [$was[0] + self::DRAWN * ($north - $was[0]), $was[1] + self::DRAWN * ($east - $was[1])];
    }

    private function random(): float
    {
        return $this->noise->values[$this->noise->at++];
    }
}
