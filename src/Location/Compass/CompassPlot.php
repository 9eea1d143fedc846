<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Compass;

use Ortholex\Core\Compass\SphereCoverage;

/** The sphere of directions as two discs, from above and from below: a patch is filled once the field came from there. */
final readonly class CompassPlot
{
    private const RADIUS = 150.0;
    private const MIDDLES = [190.0, 530.0];
    private const HIGH = 172.0;

    public function __construct(private SphereCoverage $coverage)
    {
    }

    public function share(): float
    {
        return $this->coverage->share();
    }

    /** @return list<array{path: string, filled: bool}> patches of both discs */
    public function patches(): array
    {
        $patches = [];
        $belts = SphereCoverage::BELTS;
        $half = intdiv($belts, 2);
        for ($belt = 0; $belt < $belts; ++$belt) {
            // Belts of equal area: each disc has its pole in the middle, and the equator as its rim.
            $disc = $belt < $half ? 1 : 0;
            $inner = $disc ? $belt : $belts - 1 - $belt;
            [$r0, $r1] = [self::RADIUS * sqrt($inner / $half), self::RADIUS * sqrt(($inner + 1) / $half)];
            for ($around = 0; $around < SphereCoverage::AROUND; ++$around) {
                $a0 = (2 * \M_PI * $around) / SphereCoverage::AROUND;
                $a1 = (2 * \M_PI * ($around + 1)) / SphereCoverage::AROUND;
                $patches[] = [
                    'path' => self::patch(self::MIDDLES[$disc], $r0, $r1, $a0, $a1),
                    'filled' => ($this->coverage->counts[$belt * SphereCoverage::AROUND + $around] ?? 0) > 0,
                ];
            }
        }

        return $patches;
    }

    /** @return list<array{float, float, string}> middles of the discs, and what is seen there */
    public static function discs(): array
    {
        return [[self::MIDDLES[0], self::HIGH, 'field out of its top'], [self::MIDDLES[1], self::HIGH, 'field out of its underside']];
    }

    private static function patch(float $middle, float $r0, float $r1, float $a0, float $a1): string
    {
        $at = static fn (float $r, float $a): string => \sprintf('%.1f %.1f', $middle + $r * sin($a), self::HIGH - $r * cos($a));

        return \sprintf(
            'M%sA%.1f %.1f 0 0 1 %sL%sA%.1f %.1f 0 0 0 %sz',
            $at($r1, $a0),
            $r1,
            $r1,
            $at($r1, $a1),
            $at($r0, $a1),
            max(0.1, $r0),
            max(0.1, $r0),
            $at($r0, $a0),
        );
    }
}
