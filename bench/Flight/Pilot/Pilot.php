<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Pilot;

use Ortholex\Bench\Flight\Surroundings\Motion;
use Ortholex\Core\Control\Feel;

/**
 * Eyes and thumbs: sees where the craft is a moment late, and leans it to where it should be. In angle mode a stick is a tilt; else
 * the pilot turns it by rates until it leans so.
 */
final class Pilot
{
    /** From seeing to moving, s. */
    private const LATE_S = 0.12;

    private const G = 9.81;
    private const MOST_MS2 = 3.5;
    private const BY_PLACE = 0.9;
    private const BY_SPEED = 1.7;
    private const BY_HEIGHT = 1.6;
    private const BY_CLIMB = 2.2;
    private const BY_TIME = 0.25;

    /** Rate of turning per degree that it leans wrong, 1/s. */
    private const LEAN_RATE = 4.0;

    private const HEADING_RATE = 2.0;

    /** A craft that should be higher and still stands is given more, m. */
    private const LIFTED_M = 0.3;

    /** A craft on its back is pushed more and more, and let go once it will fall over by itself. */
    private const PUSH_PER_S = 0.6;

    private const MOST_PUSH = 0.9;
    private const FALLS_OVER_DEG = 115.0;

    private bool $over = false;
    private float $trim = 0.0;
    private float $before = 0.0;

    /** @var list<array{float, array{float, float, float}, array{float, float, float}, array{float, float, float}, bool}> */
    private array $seen = [];

    /**
     * @param list<Feel> $feel       by axis
     * @param float|null $fullTilt   at full stick in angle mode, deg; null when the sticks are rates
     * @param float      $hover      throttle that holds it, 0 to 1
     * @param float      $beginsS    when it is armed and may go
     */
    public function __construct(
        private readonly Itinerary $plan,
        private readonly array $feel,
        private readonly ?float $fullTilt,
        private readonly float $hover,
        private readonly float $beginsS,
    ) {
    }

    /** Whether the plan is flown and the craft stands. */
    public function isDone(float $t, Motion $craft): bool
    {
        return $t - $this->beginsS > 3.0 && $craft->touches && $this->plan->isDown($t - $this->beginsS);
    }

    /** @return array{float, float, float, float} roll, pitch, yaw (−1 to 1), and the output that throttle is to give (0 to 1) */
    public function thumbs(float $t, Motion $craft): array
    {
        $this->seen[] = [$t, $craft->at, $craft->speed, $craft->lean(), $craft->touches];
        while (\count($this->seen) > 1 && $this->seen[1][0] <= $t - self::LATE_S) {
            array_shift($this->seen);
        }
        $dt = $t - $this->before;
        $this->before = $t;
        if ($t < $this->beginsS || $this->isDone($t, $craft)) {
            return [0.0, 0.0, 0.0, 0.0];
        }
        if ($this->plan->rollsOver) {
            $this->over = $this->over || $craft->tilt() < self::FALLS_OVER_DEG;

            return [$this->over ? 0.0 : min(self::MOST_PUSH, self::PUSH_PER_S * ($t - $this->beginsS)), 0.0, 0.0, 0.0];
        }
        [, $at, $speed, $lean, $stands] = $this->seen[0];
        [$wanted, $going] = $this->plan->at($t - $this->beginsS);
        if ($stands && $wanted[2] < 0) {
            return [0.0, 0.0, 0.0, 0.0];
        }
        $north = self::BY_PLACE * ($wanted[0] - $at[0]) + self::BY_SPEED * ($going[0] - $speed[0]);
        $east = self::BY_PLACE * ($wanted[1] - $at[1]) + self::BY_SPEED * ($going[1] - $speed[1]);
        $much = hypot($north, $east);
        if ($much > self::MOST_MS2) {
            $north *= self::MOST_MS2 / $much;
            $east *= self::MOST_MS2 / $much;
        }
        [$c, $s] = [cos(deg2rad($lean[2])), sin(deg2rad($lean[2]))];
        $pitch = $stands ? 0.0 : -rad2deg(atan(($north * $c + $east * $s) / self::G));
        $roll = $stands ? 0.0 : rad2deg(atan(($east * $c - $north * $s) / self::G));
        $off = $wanted[2] + $at[2];
        if (!$stands || $wanted[2] > self::LIFTED_M) {
            $this->trim = max(-4.0, min(4.0, $this->trim + self::BY_TIME * $off * $dt));
        }
        $up = max(-5.0, min(5.0, self::BY_HEIGHT * $off + self::BY_CLIMB * ($going[2] + $speed[2]))) + $this->trim;
        $tilted = max(0.5, cos(deg2rad($lean[0])) * cos(deg2rad($lean[1])));
        $throttle = $this->hover * sqrt(max(0.05, (1 + $up / self::G) / $tilted));
        $turn = fmod($wanted[3] - $lean[2] + 540, 360) - 180;

        return [
            $this->stick(0, $roll, $lean[0]),
            $this->stick(1, $pitch, $lean[1]),
            $stands ? 0.0 : $this->forRate(2, self::HEADING_RATE * $turn),
            max(0.0, min(1.0, $throttle)),
        ];
    }

    private function stick(int $axis, float $wanted, float $lean): float
    {
        return null === $this->fullTilt
            ? $this->forRate($axis, self::LEAN_RATE * ($wanted - $lean))
            : max(-1.0, min(1.0, $wanted / $this->fullTilt));
    }

    /** The stick that gives a rate: halved until it is near enough. */
    private function forRate(int $axis, float $dps): float
    {
        [$low, $high] = [0.0, 1.0];
        for ($i = 0; $i < 12; ++$i) {
            $middle = ($low + $high) / 2;
            $this->feel[$axis]->rate($middle) < abs($dps) ? ($low = $middle) : ($high = $middle);
        }

        return ($dps <=> 0.0) * ($low + $high) / 2;
    }
}
