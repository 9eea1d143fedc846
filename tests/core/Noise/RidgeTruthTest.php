<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Noise;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\RidgeKind;
use Ortholex\Core\Noise\Ridges;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Frames that ring broadly and rotors whose harmonics sink into the floor, over a throttle that wanders. */
#[Group('slow')]
final class RidgeTruthTest extends TestCase
{
    private const RATE = 2000;

    public function testABroadResonanceStandsWhereItIsOrIsNotTold(): void
    {
        foreach ([60.0, 120.0] as $hz) {
            for ($seed = 1; $seed <= 3; ++$seed) {
                $ridges = self::ridges($hz, 5.0, [], $seed);
                self::assertCount(1, $ridges, "$hz Hz, seed $seed");
                self::assertNotSame(RidgeKind::Climbing, $ridges[0]->kind);
                self::assertEqualsWithDelta($hz, $ridges[0]->hz, 0.04 * $hz);
            }
        }
    }

    public function testHarmonicsAreFoundAlongTheirLineAndNoneIsInvented(): void
    {
        for ($seed = 1; $seed <= 4; ++$seed) {
            $strong = self::ridges(0.0, 1.0, [1.0, 0.5, 0.3], $seed);
            self::assertSame([1, 2, 3], self::harmonics($strong), "seed $seed");
            foreach ($strong as $ridge) {
                self::assertEqualsWithDelta(2.4 * $ridge->harmonic, $ridge->hzPerPct, 0.12 * (int) $ridge->harmonic);
            }
            self::assertSame([1], self::harmonics(self::ridges(0.0, 1.0, [1.0], $seed)), "none, seed $seed");
            $faint = self::harmonics(self::ridges(0.0, 1.0, [1.0, 0.12, 0.05], $seed));
            self::assertContains(1, $faint);
            self::assertNotContains(4, $faint);
        }
    }

    /**
     * @param list<Ridge> $ridges
     *
     * @return list<int>
     */
    private static function harmonics(array $ridges): array
    {
        $all = array_map(static fn (Ridge $r): int => $r->harmonic ?? 0, $ridges);
        sort($all);

        return $all;
    }

    /**
     * @param float       $hz        of the frame's mode; 0 for none
     * @param list<float> $harmonics of a rotor at 60 Hz + 2.4 Hz per % of throttle, deg/s
     *
     * @return list<Ridge>
     */
    private static function ridges(float $hz, float $q, array $harmonics, int $seed): array
    {
        $dice = new Lcg($seed);
        $h = 1 / self::RATE;
        $w = 2 * \M_PI * $hz;
        // The mode's own recursion, exact at its frequency and damping.
        $fade = exp(-$w * $h / 2 / $q);
        [$c, $s] = [$fade * cos($w * $h), $fade * sin($w * $h)];
        $x = $throttle = [];
        $re = $im = $turned = 0.0;
        $level = $aim = 40.0;
        for ($i = 0; $i < 60 * self::RATE; ++$i) {
            $aim = 0 === $i % (self::RATE / 2) ? 20 + 60 * ($dice->next() + 0.5) : $aim;
            $level += ($aim - $level) * $h / 0.3;
            $turned += 2 * \M_PI * (60 + 2.4 * $level) * $h;
            $push = $hz > 0 ? 0.6 * $dice->normal() : 0.0;
            [$re, $im] = [$c * $re - $s * $im + $push, $s * $re + $c * $im];
            $sum = 0.0;
            foreach ($harmonics as $k => $size) {
                $sum += $size * sin(($k + 1) * $turned);
            }
            $throttle[] = $level;
            $x[] = $im + $sum + $dice->normal();
        }

        return Ridges::of(NoiseMap::of([$x], [$throttle], self::RATE), Axis::Roll);
    }
}
