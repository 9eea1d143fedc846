<?php

declare(strict_types=1);

namespace Ortholex\Core\Compass;

use Ortholex\Core\Airframe\Rotation;

/**
 * How a compass lies in the craft: of the 24 right-angle rotations, the one under which the field keeps its angle to the upright in
 * every pose that was shown, and dips as it should at this place.
 */
final readonly class CompassMounting
{
    /** The next best has to be worse by so many degrees. */
    private const LEAST_MARGIN_DEG = 6.0;

    /** Of the upright's spread over the poses; less shows too few of them. */
    private const LEAST_SPREAD = 0.35;

    private function __construct(
        public float $rollDeg,
        public float $pitchDeg,
        public float $yawDeg,
        public float $residualDeg,
        public float $nextDeg,
    ) {
    }

    /**
     * @param list<array{array{float, float, float}, array{float, float, float}}> $poses field set right, in the compass's axes, and
     *                                                                                   specific force in the craft's
     * @param float                                                               $dipDeg inclination at this place
     *
     * @throws CompassError when the poses do not tell
     */
    public static function of(array $poses, float $dipDeg): self
    {
        $ups = array_map(static fn (array $p): array => self::unit($p[1]), $poses);
        $fields = array_map(static fn (array $p): array => self::unit($p[0]), $poses);
        if (self::spread($ups) < self::LEAST_SPREAD || \count($poses) < 6) {
            throw CompassError::of(CompassFlaw::MountingUnclear, margin_deg: 0.0);
        }
        $found = [];
        foreach (self::rotations() as $angles) {
            $turn = Rotation::degrees(...$angles);
            $sum = 0.0;
            foreach ($fields as $i => $field) {
                $m = $turn->apply($field);
                $dot = -($m[0] * $ups[$i][0] + $m[1] * $ups[$i][1] + $m[2] * $ups[$i][2]);
                $sum += (rad2deg(asin(max(-1.0, min(1.0, $dot)))) - $dipDeg) ** 2;
            }
            $found[] = [sqrt($sum / \count($poses)), $angles];
        }
        usort($found, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        [[$least, $angles], [$next]] = $found;
        if ($next - $least < self::LEAST_MARGIN_DEG) {
            throw CompassError::of(CompassFlaw::MountingUnclear, margin_deg: $next - $least);
        }

        return new self($angles[0], $angles[1], $angles[2], $least, $next);
    }

    /** @return list<array{float, float, float}> roll, pitch, yaw */
    public static function rotations(): array
    {
        $all = [];
        foreach ([[0.0, 0.0], [180.0, 0.0], [90.0, 0.0], [-90.0, 0.0], [0.0, 90.0], [0.0, -90.0]] as [$roll, $pitch]) {
            foreach ([0.0, 90.0, 180.0, -90.0] as $yaw) {
                $all[] = [$roll, $pitch, $yaw];
            }
        }

        return $all;
    }

    /** @param list<array{float, float, float}> $ups */
    private static function spread(array $ups): float
    {
        $n = max(1, \count($ups));
        $mean = [array_sum(array_column($ups, 0)) / $n, array_sum(array_column($ups, 1)) / $n, array_sum(array_column($ups, 2)) / $n];

        return sqrt(max(0.0, 1 - ($mean[0] ** 2 + $mean[1] ** 2 + $mean[2] ** 2)));
    }

    /**
     * @param array{float, float, float} $v
     *
     * @return array{float, float, float}
     */
    private static function unit(array $v): array
    {
        $size = max(1e-9, sqrt($v[0] ** 2 + $v[1] ** 2 + $v[2] ** 2));

        return [$v[0] / $size, $v[1] / $size, $v[2] / $size];
    }
}
