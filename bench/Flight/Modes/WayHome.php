<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Modes;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\HomeStage;
use Ortholex\Core\Homing\ReturnPlan;

/** A return as the board flies it, by its plan: tilt, turn and climb of a moment; null tilt while it is blind. */
final class WayHome
{
    /** Turned by so much for each degree that it points beside, 1/s, and at most, deg/s. */
    private const TURN = 2.0;

    private const MOST_DPS = 90.0;

    /** Sinking by less than this share of what is asked, it stands on something; for so long, s. */
    private const STANDS = 0.3;

    private const STANDS_S = 1.0;

    /** Fastest while it stays over a place, m/s. */
    private const NEAR_MS = 2.0;

    public ?HomeStage $stage = null;

    /** Whether it has come down and stands. */
    public bool $landed = false;

    private readonly ReturnPlan $plan;
    private readonly Drift $drift;
    private float $backAtM = 0.0;
    private float $stands = 0.0;

    /** Whether it was on its way: then home is where it comes down, else where it was asked. */
    private bool $wasOnItsWay = false;

    /** @var array{float, float}|null where it was asked to come back */
    private ?array $from = null;

    public function __construct(SettingSet $set)
    {
        $this->plan = ReturnPlan::in($set);
        $this->drift = new Drift($this->plan->mostTiltDeg);
    }

    /**
     * One look: what stage it is in.
     *
     * @param array{float, float}|null $home north and east, m; null where it has none
     * @param array{float, float}|null $at   null without a fix, or without a heading
     */
    public function look(?array $home, ?array $at, float $height, float $climb, float $headingDeg, float $dt): HomeStage
    {
        $begins = null === $this->stage || HomeStage::Blind === $this->stage;
        $far = null === $home || null === $at ? null : hypot($home[0] - $at[0], $home[1] - $at[1]);
        if ($begins) {
            $this->backAtM = $this->plan->backAtM($height);
            $this->from = $at;
        }
        $this->stage = $this->plan->next($this->stage, $far, $height, $this->backAtM, $this->beside($home, $at, $headingDeg));
        $this->wasOnItsWay = $this->wasOnItsWay || HomeStage::FlyBack === $this->stage;
        $sinks = HomeStage::ComeDown === $this->stage && -$climb < self::STANDS * $this->plan->sinkMs;
        $this->stands = $sinks ? $this->stands + $dt : 0.0;
        $this->landed = $this->stands > self::STANDS_S;

        return $this->stage;
    }

    /** Height to climb at, m/s; down is negative. */
    public function climb(float $height): float
    {
        return match ($this->stage) {
            // Slower, the nearer it is to its height.
            HomeStage::Climb => min($this->plan->climbMs, max(0.3, 0.8 * ($this->backAtM - $height))),
            HomeStage::ComeDown => -$this->plan->sinkMs,
            default => 0.0,
        };
    }

    /**
     * @param array{float, float} $home
     * @param array{float, float} $at
     * @param array{float, float} $speed
     *
     * @return array{float, float} roll and pitch, deg
     */
    public function tilt(array $home, array $at, array $speed, float $headingDeg, float $dt): array
    {
        $wanted = match ($this->stage) {
            HomeStage::FlyBack => Drift::towards($home, $at, $this->plan->speedMs),
            HomeStage::ComeDown => Drift::towards($this->wasOnItsWay ? $home : $this->from ?? $at, $at, self::NEAR_MS),
            default => Drift::towards($this->from ?? $at, $at, self::NEAR_MS),
        };

        return $this->drift->tilt($wanted, $speed, $headingDeg, $dt);
    }

    /**
     * deg/s to the right.
     *
     * @param array{float, float} $home
     * @param array{float, float} $at
     */
    public function turn(array $home, array $at, float $headingDeg): float
    {
        return match ($this->stage) {
            HomeStage::Turn, HomeStage::FlyBack => max(
                -self::MOST_DPS,
                min(self::MOST_DPS, self::TURN * $this->beside($home, $at, $headingDeg)),
            ),
            default => 0.0,
        };
    }

    /**
     * @param array{float, float}|null $home
     * @param array{float, float}|null $at
     */
    private function beside(?array $home, ?array $at, float $headingDeg): float
    {
        if (null === $home || null === $at || hypot($home[0] - $at[0], $home[1] - $at[1]) < ReturnPlan::OVER_HOME_M) {
            return 0.0;
        }
        $off = rad2deg(atan2($home[1] - $at[1], $home[0] - $at[0])) - $headingDeg;

        return fmod(fmod($off, 360) + 540, 360) - 180;
    }
}
