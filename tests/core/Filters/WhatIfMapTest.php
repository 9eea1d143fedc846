<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Filters;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\Filters\WhatIfMap;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Signal\FilterStage;
use PHPUnit\Framework\TestCase;

/** The noise map behind filters: that of the whole flight, taken apart by throttle. */
final class WhatIfMapTest extends TestCase
{
    private const CHAIN = [
        'rate_path.stage.1.kind' => 'second_order',
        'rate_path.stage.1.cutoff_hz' => 120.0,
        'motors.rpm_feedback' => true,
    ];

    /** White noise of deviation σ: each cell has 2σ²/fs times |H|², whatever the throttle. */
    public function testEachCellIsTheDensityTimesTheGain(): void
    {
        $log = KnownShake::log(2000, 60, [], 5.0, 0.0, 'motors.loop_rate_hz: 8000');
        $map = WhatIfMap::of($log, SettingSet::of(self::CHAIN), Axis::Roll, self::steps(2000, 60));
        self::assertNotNull($map);
        self::assertCount(6, $map->density);
        $stage = FilterStage::secondOrder(120.0, 8000.0);
        foreach ($map->density as $bin => $row) {
            foreach ([60, 120, 300] as $hz) {
                [$re, $im] = $stage->response($hz, 8000.0);
                $k = (int) round($hz / $map->stepHz);
                $mean = array_sum(\array_slice($row, $k - 5, 11)) / 11;
                self::assertEqualsWithDelta(1.0, $mean / ((2 * 25 / 2000) * ($re * $re + $im * $im)), 0.25, "$hz Hz in bin $bin");
            }
        }
    }

    /** What all its cells hold together is what the spectrum of the whole flight holds. */
    public function testItHoldsWhatTheWholeFlightHolds(): void
    {
        $log = KnownShake::log(2000, 60, [170.0, 190.0], 2.0, 12.0);
        foreach ([self::CHAIN, self::CHAIN + ['notch.motor.orders' => '1,2']] as $chain) {
            $set = SettingSet::of($chain);
            $map = WhatIfMap::of($log, $set, Axis::Roll, self::steps(2000, 60));
            self::assertNotNull($map);
            $power = $windows = 0.0;
            foreach ($map->density as $bin => $row) {
                $from = (int) ceil(AxisSpectrum::RESIDUAL_FROM_HZ / $map->stepHz);
                $power += $map->windows[$bin] * array_sum(\array_slice($row, $from)) * $map->stepHz;
                $windows += $map->windows[$bin];
            }
            $whole = WhatIf::of($log, $set)->axes['roll']->residualDps;
            self::assertEqualsWithDelta(1.0, sqrt($power / $windows) / $whole, 0.05);
        }
    }

    public function testWithoutThrottleOrRateThereIsNoMap(): void
    {
        $log = KnownShake::log(2000, 10, [], 5.0, 0.0);
        self::assertNull(WhatIfMap::of($log, SettingSet::of(self::CHAIN), Axis::Yaw, self::steps(2000, 10)));
        self::assertNull(WhatIfMap::of($log, SettingSet::of(self::CHAIN), Axis::Roll, []));
    }

    /** @return list<list<float>> one run, six levels one after the other */
    private static function steps(int $hz, int $seconds): array
    {
        $n = $hz * $seconds;

        return [array_map(static fn (int $i): float => NoiseMap::middle(10 + 4 * intdiv(6 * $i, $n)), range(0, $n - 1))];
    }
}
