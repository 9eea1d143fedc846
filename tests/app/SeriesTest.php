<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Report\SeriesCommand;
use Symfony\Component\Console\Tester\CommandTester;

/** `bin/ortholex series`: logs made here, whose lag is known. */
final class SeriesTest extends AppCase
{
    /** @var list<string> */
    private array $paths = [];

    protected function tearDown(): void
    {
        array_map('unlink', $this->paths);
        parent::tearDown();
    }

    public function testLagPerStepTheCrossingAndTheValueToUse(): void
    {
        foreach ([9.0, 6.0, 3.0, -3.0] as $lagMs) {
            $this->log($lagMs);
        }
        [$code, $out] = $this->compare($this->paths, 'gain.roll.ff=0.6,0.9,1.2,1.8');
        $data = json_decode($out, true);
        self::assertSame(0, $code);
        self::assertIsArray($data);
        self::assertSame(['roll'], array_keys($data['axes'] ?? []), 'a setting of one axis speaks of that axis');
        $roll = $data['axes']['roll'];
        self::assertEqualsWithDelta([9.0, 6.0, 3.0, -3.0], array_column($roll['steps'] ?? [], 'lag_ms'), 0.15);
        self::assertEqualsWithDelta(1.5, $roll['zero_crossing']['value'] ?? 0, 0.03);
        self::assertGreaterThanOrEqual($roll['zero_crossing']['low'] ?? 9, 1.5 + 0.03);
        self::assertEqualsWithDelta(1.5, $roll['recommended'] ?? 0, 0.03);
        [$code, $text] = $this->compare($this->paths, 'command_low_pass.cutoff_hz=20,30,40,50', false);
        self::assertSame(0, $code);
        foreach (['roll: lag crosses zero at', 'pitch: use'] as $words) {
            self::assertStringContainsString($words, $text, 'a setting of all axes speaks of all');
        }
    }

    public function testWhereLagDoesNotFallNothingCrosses(): void
    {
        $this->log(5.0);
        $this->log(5.02);
        [, $out] = $this->compare($this->paths, 'gain.roll.ff=0.6,0.3');
        $data = json_decode($out, true);
        self::assertIsArray($data);
        self::assertSame(0.6, $data['axes']['roll']['recommended'] ?? null, 'the highest tested that still lags');
    }

    public function testOrdersThatCannotBeAreOneClearLine(): void
    {
        $this->log(4.0);
        $this->log(3.0);
        $wrong = [
            'gain.roll.ff=0.6' => '2 logs, but 1 values',
            'gain roll' => 'Say what varies',
            'gain.roll.ff=0.6,oops' => 'Say what varies',
        ];
        foreach ($wrong as $vary => $words) {
            [$code, , $error] = $this->compare($this->paths, $vary);
            self::assertSame(2, $code);
            self::assertStringContainsString($words, $error);
        }
        [$code, , $error] = $this->compare([$this->paths[0], '/nowhere.csv'], 'gain.roll.ff=1,2');
        self::assertSame(2, $code);
        self::assertStringContainsString('no readable file', $error);
    }

    /** A group that was varied together: each axis by its own values. */
    public function testAGroupIsToldForEveryAxisThatItTouches(): void
    {
        foreach ([9.0, 6.0, 3.0, -3.0] as $lagMs) {
            $this->log($lagMs);
        }
        [$code, $out] = $this->compare($this->paths, ['gain.roll.ff=0.6,0.9,1.2,1.8', 'gain.pitch.ff=1.2,1.8,2.4,3.6']);
        $data = json_decode($out, true);
        self::assertSame(0, $code);
        self::assertIsArray($data);
        self::assertSame(['roll', 'pitch'], array_keys($data['axes'] ?? []));
        self::assertEqualsWithDelta(1.5, $data['axes']['roll']['zero_crossing']['value'] ?? 0, 0.05);
        self::assertEqualsWithDelta(3.0, $data['axes']['pitch']['zero_crossing']['value'] ?? 0, 0.1);
        self::assertSame(['gain.roll.ff', 'gain.pitch.ff'], $data['settings'] ?? []);
    }

    /**
     * @param list<string>        $paths
     * @param string|list<string> $vary
     *
     * @return array{int, string, string} exit code, output, errors
     */
    private function compare(array $paths, string|array $vary, bool $json = true): array
    {
        $tester = new CommandTester(self::getContainer()->get(SeriesCommand::class));
        $code = $tester->execute(['logs' => $paths, '--vary' => (array) $vary, '--json' => $json], ['capture_stderr_separately' => true]);

        return [$code, $tester->getDisplay(), $tester->getErrorOutput()];
    }

    private function log(float $lagMs): void
    {
        $rows = ['time_s,setpoint_roll_dps,setpoint_pitch_dps,rate_measured_roll_dps,rate_measured_pitch_dps'];
        $move = static fn (float $t, float $k): float => 130 * sin(5.1 * $k * $t) +
            70 * sin(13.3 * $k * $t + 1) +
            40 * sin(29.7 * $k * $t + 2);
        for ($i = 0; $i < 14000; ++$i) {
            $t = $i / 1000;
            $rows[] = \sprintf(
                '%.4F,%.3F,%.3F,%.3F,%.3F',
                $t,
                $move($t, 1.0),
                $move($t, 0.83),
                $move($t - $lagMs / 1000, 1.0),
                $move($t - $lagMs / 1000, 0.83),
            );
        }
        $this->paths[] = $path = (string) tempnam(sys_get_temp_dir(), 'series');
        file_put_contents($path, implode("\n", $rows)."\n");
    }
}
