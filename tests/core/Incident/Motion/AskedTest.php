<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Incident\Motion;

use Ortholex\Core\Incident\Motion\Asked;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

final class AskedTest extends TestCase
{
    private const STEP_S = 0.002;

    /** By the rule as it is written, sample by sample: outside the least and greatest asked within 0.12 s, by 55 % of the move. */
    public function testIsHowFarARateLiesOutsideOfAllThatWasAskedLately(): void
    {
        $dice = new Lcg(3);
        $set = $rate = [];
        $asked = $is = 0.0;
        for ($i = 0; $i < 4000; ++$i) {
            // It steps now and then, is followed late, and is hit once.
            $asked = 0 === $i % 170 ? 600 * ($dice->next() - 0.5) : $asked;
            $is += 0.06 * ($asked - $is) + (2000 === $i ? 900.0 : 0.0);
            $set[] = $asked;
            $rate[] = $is + 4 * ($dice->next() - 0.5);
        }
        $outside = Asked::outside([$rate], [$set], self::STEP_S)[0];
        self::assertCount(4000, $outside);
        $counts = ['in' => 0, 'out' => 0];
        foreach ($rate as $i => $w) {
            $near = [];
            for ($j = max(0, $i - 60); $j <= min(3999, $i + 5); $j += 5) {
                $near[] = $set[$j];
            }
            [$low, $high] = [min($near), max($near)];
            $slack = 0.55 * max(abs($low), abs($high), $high - $low);
            $should = $w > $high + $slack ? $w - $high - $slack : min(0.0, $w - $low + $slack);
            self::assertEqualsWithDelta($should, $outside[$i], 1e-9, "sample $i");
            ++$counts[0.0 === $outside[$i] ? 'in' : 'out'];
        }
        self::assertGreaterThan(20, $counts['out'], 'the hit is seen');
        self::assertGreaterThan(3000, $counts['in']);
        self::assertGreaterThan(300.0, $outside[2001]);
    }
}
