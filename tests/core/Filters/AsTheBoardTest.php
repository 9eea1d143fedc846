<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Filters;

use Ortholex\Bench\Flight\Controller\FilterBank;
use Ortholex\Bench\Flight\Controller\FlightControl;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\Noise\AxisSpectrum;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The simulated board's own filters, fed with the same rate and the same speeds, leave what is predicted. */
final class AsTheBoardTest extends TestCase
{
    /** @return iterable<string, array{array<string, float|int|bool|string>}> */
    public static function chains(): iterable
    {
        yield 'motor notches' => [['notch.motor.orders' => '1,2', 'notch.motor.width_pct' => 23.0]];
        yield 'three orders, narrow' => [['notch.motor.orders' => '1,2,3', 'notch.motor.width_pct' => 10.0]];
        yield 'tracking' => [['notch.tracking.peaks' => 2]];
        yield 'both, and a low-pass' => [[
            'notch.motor.orders' => '1',
            'notch.tracking.peaks' => 3,
            'notch.tracking.width_pct' => 30.0,
            'rate_path.stage.1.kind' => 'second_order',
            'rate_path.stage.1.cutoff_hz' => 180.0,
        ]];
        yield 'low-passes alone' => [[
            'rate_path.stage.1.kind' => 'first_order',
            'rate_path.stage.1.cutoff_hz' => 90.0,
            'rate_path.stage.2.kind' => 'second_order',
            'rate_path.stage.2.cutoff_hz' => 240.0,
        ]];
    }

    /** @param array<string, float|int|bool|string> $chain */
    #[DataProvider('chains')]
    public function testLeavesWhatTheBoardLeaves(array $chain): void
    {
        $set = SettingSet::of($chain + ['motors.rpm_feedback' => true, 'motors.loop_rate_hz' => '2000']);
        $log = KnownShake::log(2000, 16, [140.0, 155.0, 170.0, 185.0], 1.0, 6.0);
        $bank = new FilterBank(FlightControl::of($set, 2000.0), 2000.0, 4, 30_000.0);
        $rate = $log->trace('rate_measured_roll_dps');
        $rpm = array_map(static fn (int $m): array => $log->trace("rpm_place$m"), [0, 1, 2, 3]);
        $left = [];
        foreach ($rate as $i => $v) {
            $speeds = array_map(static fn (array $one): float => $one[$i] / 30_000, $rpm);
            $left[] = $bank->filter($i, [$v, 0.0, 0.0], $speeds)[0];
        }
        $board = AxisSpectrum::of([$left], 2000.0)->rmsDps;
        $said = WhatIf::of($log, $set)->axes['roll']->residualDps;
        self::assertEqualsWithDelta(0.0, 20 * log10($said / $board), 0.3, \sprintf('%.3f said, %.3f on the board', $said, $board));
    }
}
