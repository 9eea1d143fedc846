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

    /**
     * Sinking by less than this share of what is asked for so long, s, it may stand on something: it is given less and less, % a second.
     */
    private const STANDS = 0.4;

    private const MAYBE_S = 0.3;
    private const LESS_PER_S = 80.0;

    /** So long it is let begin to sink before anything is suspected, s. */
    private const BEGINS_S = 1.0;

    /**
     * It stands where it neither moves nor turns, m/s and deg/s, though it is given less than this share of what holds it, for so long, s.
     * Less throttle alone tells nothing: with corrections that reach the idle, air mode gives it back, and it stays up.
     */
    private const BEARS = 0.7;

    private const BEARS_S = 0.5;
    private const STILL_MS = 0.15;
    private const STILL_DPS = 20.0;

    /** Fastest while it stays over a place, m/s. */
    private const NEAR_MS = 2.0;

    public ?HomeStage $stage = null;

    /** Whether it has come down and stands. */
    public bool $landed = false;

    private readonly ReturnPlan $plan;
    private readonly Drift $drift;
    private float $backAtM = 0.0;
    private float $stands = 0.0;
    private float $bears = 0.0;
    private bool $still = false;

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
     * @param float                    $turn fastest about any axis, deg/s
     */
    public function look(?array $home, ?array $at, float $height, float $climb, float $headingDeg, float $turn, float $dt): HomeStage
    {
        $was = $this->stage;
        $begins = null === $this->stage || HomeStage::Blind === $this->stage;
        $far = null === $home || null === $at ? null : hypot($home[0] - $at[0], $home[1] - $at[1]);
        if ($begins) {
            $this->backAtM = $this->plan->backAtM($height);
            $this->from = $at;
        }
        $this->stage = $this->plan->next($this->stage, $far, $height, $this->backAtM, $this->beside($home, $at, $headingDeg));
        $this->wasOnItsWay = $this->wasOnItsWay || HomeStage::FlyBack === $this->stage;
        $sinks = HomeStage::ComeDown === $this->stage && -$climb < self::STANDS * $this->plan->sinkMs;
        $this->stands = match (true) {
            HomeStage::ComeDown !== $this->stage => 0.0,
            $was !== $this->stage => -self::BEGINS_S,
            $this->stands < 0 => $this->stands + $dt,
            // On the ground it hops for a while.
            default => max(0.0, $this->stands + ($sinks ? $dt : -0.5 * $dt)),
        };
        $this->still = abs($climb) < self::STILL_MS && $turn < self::STILL_DPS;

        return $this->stage;
    }

    /**
     * Throttle of a moment: less where it seems to stand, and it is down where that does not let it sink.
     *
     * @param float $pct  that its climb asks for
     * @param float $base that holds it
     */
    public function lands(float $pct, float $base, float $dt): float
    {
        $less = max(0.0, $pct - self::LESS_PER_S * max(0.0, $this->stands - self::MAYBE_S));
        $this->bears = $this->seemsToStand() && $this->still && $less < self::BEARS * $base ? $this->bears + $dt : 0.0;
        $this->landed = $this->landed || $this->bears > self::BEARS_S;

        return $less;
    }

    /** Whether it seems to stand: then air mode is to give nothing back that less throttle takes, or it hops and drifts. */
    public function seemsToStand(): bool
    {
        return $this->stands > self::MAYBE_S;
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

        // What may stand is not leant against the wind: it would tip over.
        return $this->seemsToStand() ? [0.0, 0.0] : $this->drift->tilt($wanted, $speed, $headingDeg, $dt);
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
