<?php

declare(strict_types=1);

namespace Ortholex\Core\Homing;

use Ortholex\Core\Craft\SettingSet;

/**
 * How a craft comes home: climb to a height, turn, fly back, come down. The board goes by it, the sheet draws it, the simulator flies it.
 */
final readonly class ReturnPlan
{
    /** So near to home it is over it, m. */
    public const OVER_HOME_M = 2.0;

    /** Within so many metres of its height it is there. */
    private const AT_HEIGHT_M = 1.0;

    /** Pointing home within so much, it flies. */
    private const POINTS_DEG = 15.0;

    private function __construct(
        public float $heightM,
        public float $speedMs,
        public float $climbMs,
        public float $sinkMs,
        public float $leastM,
        public float $mostM,
        public IfNear $ifNear,
        public float $mostTiltDeg,
    ) {
    }

    public static function in(SettingSet $set): self
    {
        return new self(
            $set->number('return.height_m', 30),
            $set->number('return.speed_ms', 6),
            $set->number('return.climb_ms', 2),
            $set->number('return.sink_ms', 1),
            $set->number('return.least_m', 15),
            $set->number('return.most_m', 0),
            IfNear::tryFrom($set->text('return.if_near')) ?? IfNear::LandHere,
            $set->number('hold.most_tilt_deg', 25),
        );
    }

    /** Whether a place is farther from home than a flight may go; 0 sets no limit. */
    public function isTooFar(float $distanceM): bool
    {
        return $this->mostM > 0 && $distanceM > $this->mostM;
    }

    /** The height that it climbs to from another: it never comes lower to fly back. */
    public function backAtM(float $heightM): float
    {
        return max($this->heightM, $heightM);
    }

    /**
     * What comes next.
     *
     * @param HomeStage|null $was       null where it begins
     * @param float|null     $distanceM to home; null without a fix
     * @param float          $heightM   over the place of take-off
     * @param float          $backAtM   height to fly back at
     * @param float          $offDeg    how far its nose points beside home
     */
    public function next(?HomeStage $was, ?float $distanceM, float $heightM, float $backAtM, float $offDeg): HomeStage
    {
        if (null === $distanceM) {
            return HomeStage::Blind;
        }
        if (null === $was || HomeStage::Blind === $was) {
            return match (true) {
                $distanceM >= $this->leastM, IfNear::ComeBack === $this->ifNear => HomeStage::Climb,
                IfNear::Stay === $this->ifNear => HomeStage::Stay,
                default => HomeStage::ComeDown,
            };
        }

        return match ($was) {
            HomeStage::Climb => $heightM >= $backAtM - self::AT_HEIGHT_M ? HomeStage::Turn : $was,
            HomeStage::Turn => abs($offDeg) <= self::POINTS_DEG || $distanceM < self::OVER_HOME_M ? HomeStage::FlyBack : $was,
            HomeStage::FlyBack => $distanceM < self::OVER_HOME_M ? HomeStage::ComeDown : $was,
            default => $was,
        };
    }
}
