<?php

declare(strict_types=1);

namespace Ortholex\Core\Compass;

/**
 * Which patches of a sphere were pointed at: 60 of equal area, six belts of equal height (Archimedes) with ten each.
 *
 * The field points at a patch as the craft is turned; where none was, nothing is known of the compass.
 */
final readonly class SphereCoverage
{
    public const BELTS = 6;
    public const AROUND = 10;

    /** An axis that spans less than twice this showed nothing but noise, µT. */
    private const LEAST_HALF_UT = 5.0;

    /** @param list<int> $counts samples by patch, belts from the top */
    private function __construct(public array $counts)
    {
    }

    /** @param iterable<array{float, float, float}> $directions of any length */
    public static function of(iterable $directions): self
    {
        $counts = array_fill(0, self::BELTS * self::AROUND, 0);
        foreach ($directions as [$x, $y, $z]) {
            $size = sqrt($x * $x + $y * $y + $z * $z);
            if ($size > 0) {
                $belt = min(self::BELTS - 1, (int) floor(((1 - $z / $size) / 2) * self::BELTS));
                $around = ((int) floor((atan2($y, $x) / (2 * \M_PI) + 1) * self::AROUND)) % self::AROUND;
                ++$counts[$belt * self::AROUND + $around];
            }
        }

        return new self(array_values($counts));
    }

    /**
     * Of readings that were not fitted yet: around the middle between the extremes of each axis, and each as long as the others.
     *
     * @param list<array{float, float, float}> $readings µT
     */
    public static function roughly(array $readings): self
    {
        $middle = $half = [0.0, 0.0, 0.0];
        foreach ([0, 1, 2] as $axis) {
            $of = array_column($readings, $axis);
            [$least, $most] = [] === $of ? [0.0, 0.0] : [min($of), max($of)];
            $middle[$axis] = ($most + $least) / 2;
            $half[$axis] = max(self::LEAST_HALF_UT, ($most - $least) / 2);
        }

        return self::of(array_map(static fn (array $r): array => [
            ($r[0] - $middle[0]) / $half[0],
            ($r[1] - $middle[1]) / $half[1],
            ($r[2] - $middle[2]) / $half[2],
        ], $readings));
    }

    /** 0 to 1. */
    public function share(): float
    {
        return \count(array_filter($this->counts)) / \count($this->counts);
    }
}
