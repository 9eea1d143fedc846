<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Guard;

use Ortholex\Tests\app\AppCase;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;

/** Pack, hover and sink speed on the command line. */
final class CommandLineTest extends AppCase
{
    public function testAPackIsFitted(): void
    {
        $csv = "time_s,battery_v,current_a\n";
        for ($i = 0, $ah = 0.0; $i < 3000; ++$i) {
            $a = 20 + 10 * sin($i / 37) + (0 === intdiv($i, 150) % 2 ? 8 : 0);
            $ah += $a / 50 / 3600;
            $csv .= \sprintf("%.2f,%.4f,%.3f\n", $i / 50, 4 * (4.1 - 0.5 * $ah - 0.005 * $a), $a);
        }
        [$code, $said] = $this->run1('pack', ['what' => 'fit', 'log' => $this->written($csv), '--cells' => '4', '--json' => true]);
        self::assertSame(0, $code, $said);
        $fit = json_decode($said, true);
        self::assertIsArray($fit);
        self::assertSame(['charge_ah', 'ohm_per_cell', 'rest_cell_v'], array_keys($fit));
        self::assertEqualsWithDelta(0.005, $fit['ohm_per_cell']['value'], 0.0001);
        self::assertLessThanOrEqual(0.005001, $fit['ohm_per_cell']['low']);
        self::assertGreaterThanOrEqual(0.004999, $fit['ohm_per_cell']['high']);
        self::assertIsArray($fit['rest_cell_v']);
        foreach ($fit['rest_cell_v'] as $point) {
            self::assertIsArray($point);
            [$at, $volts] = [$point[0] ?? null, $point[1] ?? null];
            self::assertIsFloat($at);
            self::assertEqualsWithDelta(4.1 - 0.5 * $at, $volts, 0.001);
        }
        self::assertSame(2, $this->run1('pack', ['what' => 'fit', 'log' => $this->written($csv)])[0], 'cells are asked for');
        self::assertSame(2, $this->run1('pack', ['what' => 'fit', 'log' => '/nowhere.csv', '--cells' => '4'])[0]);
        self::assertSame(2, $this->run1('pack', ['what' => 'burn', 'log' => $this->written($csv), '--cells' => '4'])[0]);
        [$code, $said] = $this->run1(
            'pack',
            ['what' => 'fit', 'log' => $this->written("time_s,throttle_pct\n0,1\n0.01,2\n0.02,3\n"), '--cells' => '4'],
        );
        self::assertSame(2, $code);
        self::assertStringContainsString('no trace battery_v', $said);
    }

    public function testHoverIsToldFromALog(): void
    {
        $outputs = array_map(static fn (string $p): string => "output_{$p}_pct", ['front_right', 'rear_right', 'rear_left', 'front_left']);
        $csv = 'time_s,throttle_pct,accel_z_g,battery_v,'.implode(',', $outputs)."\n";
        for ($i = 0; $i < 1000; ++$i) {
            $csv .= \sprintf(
                "%.2f,30,%.3f,16.0,%s\n",
                $i / 100,
                -1.0 - 0.05 * sin($i / 50),
                implode(',', array_fill(0, 4, \sprintf('%.3f', 36 * sqrt(1 + 0.05 * sin($i / 50))))),
            );
        }
        [$code, $said] = $this->run1('hover', ['log' => $this->written($csv), '--json' => true]);
        self::assertSame(0, $code, $said);
        $hover = json_decode($said, true);
        self::assertIsArray($hover);
        self::assertSame(['hover_pct', 'spread_pct', 'pack_v', 'windows'], array_keys($hover));
        self::assertEqualsWithDelta(36.0, $hover['hover_pct'], 0.1);
        self::assertEqualsWithDelta(16.0, $hover['pack_v'], 0.01);
        self::assertSame(20, $hover['windows']);
        self::assertSame(2, $this->run1('hover', ['log' => $this->written("time_s,throttle_pct\n0,1\n0.01,2\n0.02,3\n")])[0]);
    }

    public function testSinkSpeedIsTold(): void
    {
        $given = ['--hover' => '36', '--at-v' => '23.4', '--throttle' => '33', '--from-v' => '25', '--to-v' => '21', '--json' => true];
        [$code, $said] = $this->run1('sink', $given);
        self::assertSame(0, $code);
        $told = json_decode($said, true);
        self::assertIsArray($told);
        self::assertSame(['pack_v' => 25.0, 'sink_ms' => round(20 * sqrt(1 - (33 * 25 / (36 * 23.4)) ** 2), 3)], $told['sink'][0]);
        self::assertCount(9, $told['sink']);
        self::assertNull($told['throttle_pct'], 'no fixed output suits 25 V and 21 V');
        self::assertStringContainsString('No fixed output', $this->run1('sink', array_diff_key($given, ['--json' => 1]))[1]);
        foreach (['--hover' => '0', '--at-v' => 'x', '--throttle' => '-3'] as $option => $value) {
            self::assertSame(2, $this->run1('sink', [$option => $value] + $given)[0], $option);
        }
    }

    /**
     * @param array<string, mixed> $input
     *
     * @return array{int, string}
     */
    private function run1(string $name, array $input): array
    {
        $kernel = self::$kernel;
        self::assertNotNull($kernel);
        $tester = new CommandTester((new Application($kernel))->find($name));
        $code = $tester->execute($input, ['capture_stderr_separately' => false]);

        return [$code, $tester->getDisplay()];
    }
}
