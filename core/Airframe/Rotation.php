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
        [$cr, $sr, $cp, $sp, $cy, $sy] = [cos(deg2rad($roll)), sin(deg2rad($roll)), cos(deg2rad($pitch)), sin(deg2rad($pitch)), cos(deg2rad($yaw)), sin(deg2rad($yaw))];

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
}
