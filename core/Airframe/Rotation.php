<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/**
 * A rotation by yaw, then pitch, then roll (intrinsic Z-Y'-X"), as a matrix from turned to fixed axes.
 * x forward, y right, z down; pitch + is nose up, roll + right side down, yaw + nose right.
 */
final readonly class Rotation
{
    /** @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $m */
    private function __construct(private array $m)
    {
    }

    public static function degrees(float $roll, float $pitch, float $yaw): self
    {
        [$cr, $sr, $cp, $sp, $cy, $sy] = [
            cos(deg2rad($roll)),
            sin(deg2rad($roll)),
            cos(deg2rad($pitch)),
            sin(deg2rad($pitch)),
            cos(deg2rad($yaw)),
            sin(deg2rad($yaw)),
        ];

        return new self([
            [$cy * $cp, $cy * $sp * $sr - $sy * $cr, $cy * $sp * $cr + $sy * $sr],
            [$sy * $cp, $sy * $sp * $sr + $cy * $cr, $sy * $sp * $cr - $cy * $sr],
            [-$sp, $cp * $sr, $cp * $cr],
        ]);
    }

    /**
     * @param array{float, float, float} $v in turned axes
     *
     * @return array{float, float, float} in fixed axes
     */
    public function apply(array $v): array
    {
        [$a, $b, $c] = $this->m;

        return [
            $a[0] * $v[0] + $a[1] * $v[1] + $a[2] * $v[2],
            $b[0] * $v[0] + $b[1] * $v[1] + $b[2] * $v[2],
            $c[0] * $v[0] + $c[1] * $v[1] + $c[2] * $v[2],
        ];
    }

    /**
     * @param array{float, float, float} $v in fixed axes
     *
     * @return array{float, float, float} in turned axes
     */
    public function undo(array $v): array
    {
        $m = $this->m;

        return [
            $m[0][0] * $v[0] + $m[1][0] * $v[1] + $m[2][0] * $v[2],
            $m[0][1] * $v[0] + $m[1][1] * $v[1] + $m[2][1] * $v[2],
            $m[0][2] * $v[0] + $m[1][2] * $v[1] + $m[2][2] * $v[2],
        ];
    }

    /**
     * Of an orthonormal matrix, from turned to fixed axes.
     *
     * @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $m
     */
    public static function ofMatrix(array $m): self
    {
        return new self($m);
    }

    /** Angle of the rotation that leads from this one to the other; degrees, 0 to 180. */
    public function angleTo(self $other): float
    {
        $trace = 0.0;
        for ($i = 0; $i < 3; ++$i) {
            for ($j = 0; $j < 3; ++$j) {
                $trace += $this->m[$i][$j] * $other->m[$i][$j];
            }
        }

        return rad2deg(acos(max(-1.0, min(1.0, ($trace - 1) / 2))));
    }

    /** @return array{float, float, float} roll, pitch and yaw in degrees that Rotation::degrees() would take; at ±90° pitch, yaw is 0 */
    public function angles(): array
    {
        $m = $this->m;
        $pitch = asin(max(-1.0, min(1.0, -$m[2][0])));
        if (abs($m[2][0]) > 1 - 1e-9) {
            return [rad2deg(atan2(-$m[1][2], $m[1][1])), rad2deg($pitch), 0.0];
        }

        return [rad2deg(atan2($m[2][1], $m[2][2])), rad2deg($pitch), rad2deg(atan2($m[1][0], $m[0][0]))];
    }
}
