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

    /** 0 to 1. */
    public function share(): float
    {
        return \count(array_filter($this->counts)) / \count($this->counts);
    }
}
