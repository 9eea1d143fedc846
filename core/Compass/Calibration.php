<?php

declare(strict_types=1);

namespace Ortholex\Core\Compass;

use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Craft\SettingSet;

/** How a board sets right what its compass reads, and how the compass lies in the craft. */
final readonly class Calibration
{
    /** The six of the symmetric matrix, by row and column. */
    public const SOFT = ['xx' => [0, 0], 'yy' => [1, 1], 'zz' => [2, 2], 'xy' => [0, 1], 'xz' => [0, 2], 'yz' => [1, 2]];

    /**
     * @param array{float, float, float}                                                                           $offset µT
     * @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $matrix
     */
    private function __construct(public array $offset, public array $matrix, public Rotation $lies)
    {
    }

    /**
     * @param array{float, float, float}                                                                           $offset
     * @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $matrix
     */
    public static function of(array $offset, array $matrix, ?Rotation $lies = null): self
    {
        return new self($offset, $matrix, $lies ?? Rotation::degrees(0, 0, 0));
    }

    public static function in(SettingSet $set): self
    {
        $m = [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]];
        foreach (self::SOFT as $name => [$i, $j]) {
            $m[$i][$j] = $m[$j][$i] = $set->number("compass.soft.$name", $i === $j ? 1.0 : 0.0);
        }

        return new self(
            [$set->number('compass.offset.x_ut'), $set->number('compass.offset.y_ut'), $set->number('compass.offset.z_ut')],
            $m,
            Rotation::degrees($set->number('compass.roll_deg'), $set->number('compass.pitch_deg'), $set->number('compass.yaw_deg')),
        );
    }

    /** @return array<string, float> as settings */
    public static function settings(CompassFit $fit): array
    {
        $values = [];
        foreach (['x', 'y', 'z'] as $i => $axis) {
            $values["compass.offset.{$axis}_ut"] = round($fit->offset[$i], 1);
        }
        foreach (self::SOFT as $name => [$i, $j]) {
            $values["compass.soft.$name"] = round($fit->matrix[$i][$j], 4);
        }

        return $values;
    }

    /**
     * @param array{float, float, float} $reading µT, in the compass's own axes
     *
     * @return array{float, float, float} set right, in the same axes
     */
    public function apply(array $reading): array
    {
        [$x, $y, $z] = [$reading[0] - $this->offset[0], $reading[1] - $this->offset[1], $reading[2] - $this->offset[2]];
        $m = $this->matrix;

        return [
            $m[0][0] * $x + $m[0][1] * $y + $m[0][2] * $z,
            $m[1][0] * $x + $m[1][1] * $y + $m[1][2] * $z,
            $m[2][0] * $x + $m[2][1] * $y + $m[2][2] * $z,
        ];
    }

    /**
     * Magnetic heading of the craft, deg.
     *
     * @param array{float, float, float} $reading µT, in the compass's own axes
     * @param array{float, float, float} $force   specific force in the craft's axes, g: at rest it points up
     */
    public function heading(array $reading, array $force): float
    {
        $m = $this->lies->apply($this->apply($reading));
        $size = max(1e-9, sqrt($force[0] ** 2 + $force[1] ** 2 + $force[2] ** 2));
        $down = [-$force[0] / $size, -$force[1] / $size, -$force[2] / $size];
        $along = $m[0] * $down[0] + $m[1] * $down[1] + $m[2] * $down[2];
        $level = [$m[0] - $along * $down[0], $m[1] - $along * $down[1], $m[2] - $along * $down[2]];
        // The nose, laid level; and what is to its right.
        $nose = [1 - $down[0] * $down[0], -$down[0] * $down[1], -$down[0] * $down[2]];
        $right = [
            $down[1] * $nose[2] - $down[2] * $nose[1],
            $down[2] * $nose[0] - $down[0] * $nose[2],
            $down[0] * $nose[1] - $down[1] * $nose[0],
        ];
        $ahead = $level[0] * $nose[0] + $level[1] * $nose[1] + $level[2] * $nose[2];
        $beside = $level[0] * $right[0] + $level[1] * $right[1] + $level[2] * $right[2];

        return fmod(rad2deg(atan2(-$beside, $ahead)) + 360, 360);
    }
}
