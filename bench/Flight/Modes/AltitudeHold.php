<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Modes;

use Ortholex\Core\Craft\SettingSet;

/** Height held by throttle: around the stick's hover point it stays, beyond it climbs or sinks the faster, the farther the stick is. */
final class AltitudeHold
{
    private const FASTEST_MS = 2.5;

    /** % per m, per m/s, and per m and s. */
    private const BY_HEIGHT = 4.0;

    private const BY_CLIMB = 5.0;
    private const LEARNS_S = 6.0;
    private const BY_TIME = 1.2;

    private readonly float $hoverStick;

    /** So far about hover the stick asks for nothing, share of its travel. */
    private readonly float $neutral;

    private float $trim = 0.0;

    /** The same, slowly. */
    private float $hovers;

    /** @param float $basePct throttle when it was turned on */
    public function __construct(SettingSet $set, private float $target, private readonly float $basePct)
    {
        $this->hoverStick = $set->number('throttle.hover_stick_pct', 50) / 100;
        $this->hovers = $basePct;
        $this->neutral = $set->number('altitude_hold.neutral_pct', 10) / 100;
    }

    /**
     * @param float $stick 0 to 1
     *
     * @return float throttle, %
     */
    public function throttle(float $stick, float $height, float $climb, float $dt): float
    {
        $off = $stick - $this->hoverStick;
        $beyond = max(0.0, abs($off) - $this->neutral) / max(0.05, ($off < 0 ? $this->hoverStick : 1 - $this->hoverStick) - $this->neutral);
        $wanted = ($off <=> 0.0) * self::FASTEST_MS * min(1.0, $beyond);

        return $this->climbing($wanted, $height, $climb, $dt);
    }

    /** What it holds is here from now on. */
    public function from(float $height): void
    {
        $this->target = $height;
    }

    /** Throttle that it has learnt to hover with, %. */
    public function hovers(): float
    {
        return $this->hovers;
    }

    /**
     * Throttle that climbs at a speed, and at none stays, %.
     *
     * @param float $wanted m/s
     */
    public function climbing(float $wanted, float $height, float $climb, float $dt): float
    {
        $this->target += $wanted * $dt;
        $error = max(-3.0, min(3.0, $this->target - $height));
        $this->trim = max(-30.0, min(30.0, $this->trim + self::BY_TIME * $error * $dt));
        $pct = max(0.0, min(100.0, $this->basePct + $this->trim + self::BY_HEIGHT * $error + self::BY_CLIMB * ($wanted - $climb)));
        $this->hovers += ($pct - $this->hovers) * $dt / self::LEARNS_S;

        return $pct;
    }
}
