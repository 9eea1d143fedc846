<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/**
 * How the board lies in the craft, from what its accelerometer reads in two known poses (TRIAD; Black 1964).
 *
 * The accelerometer at rest reads specific force, that is −gravity: level and straight it reads (0, 0, −1) g.
 */
final readonly class Mounting
{
    /** A found rotation this near to one of whole 45° steps is taken for it. */
    private const SNAP_DEG = 12.0;

    private const LEAST_APART_DEG = 20.0;
    private const MOST_STRETCH = 0.12;

    /** How far the lift that was asked for may differ from the one that was shown. */
    private const MOST_OFF_LIFT_DEG = 25.0;

    private function __construct(
        public Rotation $rotation,
        public float $rollDeg,
        public float $pitchDeg,
        public float $yawDeg,
        public float $residualDeg,
        public bool $snapped,
    ) {
    }

    /**
     * @param array{float, float, float} $level  specific force read by the board with the craft level, g
     * @param array{float, float, float} $noseUp the same with the nose lifted
     * @param float                      $upDeg  how far it was lifted; only its direction counts
     *
     * @throws AirframeError when the poses are too alike, the readings are not of a craft at rest, or they contradict the lift
     */
    public static function fromPoses(array $level, array $noseUp, float $upDeg): self
    {
        foreach (['level' => $level, 'nose_up' => $noseUp] as $pose => $force) {
            $size = self::size($force);
            if (abs($size - 1) > self::MOST_STRETCH) {
                throw AirframeError::of(AirframeFlaw::NotStillInPose, pose: $pose, g: $size);
            }
        }
        $downLevel = self::unit([-$level[0], -$level[1], -$level[2]]);
        $downUp = self::unit([-$noseUp[0], -$noseUp[1], -$noseUp[2]]);
        $apart = rad2deg(acos(max(-1.0, min(1.0, self::dot($downLevel, $downUp)))));
        if ($apart < self::LEAST_APART_DEG) {
            throw AirframeError::of(AirframeFlaw::PosesAlike, deg: $apart);
        }
        if (abs($apart - $upDeg) > self::MOST_OFF_LIFT_DEG) {
            throw AirframeError::of(AirframeFlaw::PosesContradictLift, deg: $apart, up_deg: $upDeg);
        }
        // In the craft, level: down is z. Nose up: down leans towards the tail, that is −x. Their cross product is the pitch axis.
        $craft = self::triad([0.0, 0.0, 1.0], [-sin(deg2rad($apart)), 0.0, cos(deg2rad($apart))]);
        $board = self::triad($downLevel, $downUp);
        $m = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        for ($i = 0; $i < 3; ++$i) {
            for ($j = 0; $j < 3; ++$j) {
                for ($k = 0; $k < 3; ++$k) {
                    $m[$i][$j] += $craft[$k][$i] * $board[$k][$j];
                }
            }
        }

        return self::nearest(Rotation::ofMatrix($m));
    }

    /** The rotation itself, or the one of whole 45° steps beside it. */
    private static function nearest(Rotation $found): self
    {
        $best = null;
        $least = \INF;
        foreach (self::candidates() as [$roll, $pitch, $yaw]) {
            $candidate = Rotation::degrees($roll, $pitch, $yaw);
            $angle = $found->angleTo($candidate);
            if ($angle < $least - 1e-6) {
                $least = $angle;
                $best = [$candidate, $roll, $pitch, $yaw];
            }
        }
        if (null !== $best && $least <= self::SNAP_DEG) {
            return new self($best[0], $best[1], $best[2], $best[3], $least, true);
        }
        [$roll, $pitch, $yaw] = $found->angles();

        return new self($found, $roll, $pitch, $yaw, 0.0, false);
    }

    /**
     * The 24 right-angle rotations and, level or upside down, those of 45° yaw; plainest names first.
     *
     * @return iterable<array{float, float, float}>
     */
    private static function candidates(): iterable
    {
        foreach ([0.0, 180.0] as $roll) {
            foreach ([0.0, 90.0, 180.0, -90.0, 45.0, 135.0, -135.0, -45.0] as $yaw) {
                yield [$roll, 0.0, $yaw];
            }
        }
        foreach ([90.0, -90.0] as $roll) {
            foreach ([0.0, 90.0, 180.0, -90.0] as $yaw) {
                yield [$roll, 0.0, $yaw];
            }
        }
        foreach ([90.0, -90.0] as $pitch) {
            foreach ([0.0, 90.0, 180.0, -90.0] as $yaw) {
                yield [0.0, $pitch, $yaw];
            }
        }
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{array{float, float, float}, array{float, float, float}, array{float, float, float}} three unit vectors at right angles
     */
    private static function triad(array $a, array $b): array
    {
        $first = self::unit($a);
        $second = self::unit(self::cross($a, $b));

        return [$first, $second, self::cross($first, $second)];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     */
    private static function dot(array $a, array $b): float
    {
        return $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
    }

    /** @param array{float, float, float} $a */
    private static function size(array $a): float
    {
        return sqrt(self::dot($a, $a));
    }

    /**
     * @param array{float, float, float} $a
     *
     * @return array{float, float, float}
     */
    private static function unit(array $a): array
    {
        $size = max(1e-12, self::size($a));

        return [$a[0] / $size, $a[1] / $size, $a[2] / $size];
    }
}
