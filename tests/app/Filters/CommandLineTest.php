<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Filters;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Tests\app\AppCase;
use Ortholex\Tests\core\Filters\KnownShake;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;

/** `bin/ortholex filters`, `loop` and `takeover`: what they answer, and what they refuse. */
final class CommandLineTest extends AppCase
{
    /** @var list<string> */
    private array $files = [];

    protected function tearDown(): void
    {
        array_map('unlink', $this->files);
        parent::tearDown();
    }

    public function testALogThroughTwoChainsAndTheCurveOfAll(): void
    {
        $log = $this->csv(KnownShake::log(2000, 6, [150.0, 170.0], 2.0, 10.0));
        $heavy = $this->file("# heavy\nrate_path.stage.1.kind: second_order\nrate_path.stage.1.cutoff_hz: 80\n");
        $light = $this->file("notch.motor.orders: '1,2'\n");
        $two = ['log' => $log, '--chain' => $heavy, '--than' => $light, '--trade-off' => true, '--json' => true];
        [$code, $out] = $this->command('filters', $two);
        self::assertSame(0, $code, $out);
        $told = json_decode($out, true);
        self::assertIsArray($told);
        self::assertSame(['roll'], array_keys($told['axes']));
        $roll = $told['axes']['roll'];
        self::assertGreaterThan($roll['residual_dps'], $roll['measured_dps']);
        self::assertLessThan($roll['measured_dps'], $roll['than_residual_dps']);
        // A second-order Butterworth delays by √2/(2π·fc) well below its cutoff.
        self::assertEqualsWithDelta(1e3 * \M_SQRT2 / (2 * \M_PI * 80), $roll['delay_ms_at_30hz'], 0.2);
        self::assertSame($roll['delay_ms_at_30hz'], $roll['d_delay_ms_at_30hz']);
        self::assertSame(['chain', 'residual_dps', 'delay_ms', 'knee'], array_keys($told['trade_off'][0]));
        self::assertCount(1, array_filter(array_column($told['trade_off'], 'knee')));
        $delays = array_column($told['trade_off'], 'delay_ms');
        self::assertSame($delays, self::sorted($delays));
        self::assertSame(1.0, $told['trade_off_part']);
        // Each is worth on the curve what it is when it is asked for by itself.
        foreach ([1, intdiv(\count($delays), 2), \count($delays) - 1] as $i) {
            $one = $told['trade_off'][$i];
            $yaml = implode('', array_map(
                static fn (int|string $name, mixed $value): string => "$name: ".json_encode($value)."\n",
                array_keys($one['chain']),
                $one['chain'],
            ));
            $alone = json_decode($this->command('filters', ['log' => $log, '--chain' => $this->file($yaml), '--json' => true])[1], true);
            self::assertSame($one['residual_dps'], $alone['axes']['roll']['residual_dps'], $yaml);
            self::assertSame($one['delay_ms'], $alone['axes']['roll']['delay_ms_at_30hz'], $yaml);
        }
        [$code, $out] = $this->command('filters', ['log' => $log, '--chain' => $heavy, '--trade-off' => true]);
        self::assertSame(0, $code);
        self::assertStringContainsString('knee', $out);
        self::assertStringContainsString('a little differently', $out);
    }

    public function testWhatCannotBeUsedIsOneClearLine(): void
    {
        $log = $this->csv(KnownShake::log(1000, 2, [], 1.0, 0.0));
        $wrong = [
            'is no file that can be read' => '/nowhere.yaml',
            'line 2' => $this->file("rate_path.stage.1.kind: off\nrate_path.stage.1.cutoff_hz: 99999\n"),
            'line 1: rate_path.stage.9.kind: there is no such setting' => $this->file("rate_path.stage.9.kind: off\n"),
            'the colon after the name' => $this->file("rate_path.stage.1.kind\n"),
        ];
        foreach ($wrong as $words => $chain) {
            [$code, $out] = $this->command('filters', ['log' => $log, '--chain' => $chain]);
            self::assertSame(2, $code, $out);
            self::assertStringContainsString($words, $out);
        }
        self::assertStringContainsString('--chain', $this->command('filters', ['log' => $log])[1]);
        // A name that a terminal would take for a tag is said whole.
        self::assertStringContainsString('no<info>such.csv', $this->command('analyse', ['log' => 'no<info>such.csv'])[1]);
        self::assertSame(2, $this->command('filters', ['log' => '/nowhere.csv', '--chain' => $this->file('# none')])[0]);
        self::assertSame(2, $this->command('loop', ['log' => $log])[0]);
        [$code, $out] = $this->command('loop', ['log' => $log, '--settings' => $this->file('gain.roll.p: 20')]);
        self::assertSame(0, $code);
        self::assertStringContainsString('No axis of this log', $out);
    }

    public function testPartsAreTakenOverAndNeverWhatIsACraftsOwn(): void
    {
        $from = $this->file(
            "gain.roll.p: 44\ngain.roll.d: 2\nrate_path.stage.1.cutoff_hz: 140\nframe.diagonal_mm: 130\nmounting.roll_deg: 90\n".
                "pad.1.drives: none\nchannel.roll.low_us: 1100\nfeel.roll.full_dps: 500\n",
        );
        $into = $this->file(
            "gain.roll.p: 30\ngain.roll.d: 2\nrate_path.stage.1.cutoff_hz: 180\nframe.diagonal_mm: 230\nmounting.roll_deg: 0\n".
                "pad.1.drives: front_left\nchannel.roll.low_us: 1000\nfeel.roll.full_dps: 700\nesc.front_left.advance_deg: 15\n",
        );
        [$code, $out] = $this->command('takeover', ['from' => $from, 'into' => $into, '--parts' => 'gains,filters', '--json' => true]);
        self::assertSame(0, $code, $out);
        $told = json_decode($out, true);
        self::assertIsArray($told);
        self::assertSame(['gain.roll.p', 'rate_path.stage.1.cutoff_hz'], array_column($told['changes'], 'setting'));
        self::assertSame(['gain.roll.d'], $told['same']);
        self::assertCount(2, $told['not_comparable'], 'another size, and other filters');
        self::assertStringContainsString('130 mm, here 230', $told['not_comparable'][0]);
        $all = ['from' => $from, 'into' => $into, '--parts' => 'gains,filters,feel,switches,overlay', '--json' => true];
        $changed = array_column(json_decode($this->command('takeover', $all)[1], true)['changes'] ?? [], 'setting');
        foreach (['mounting.roll_deg', 'pad.1.drives', 'channel.roll.low_us', 'frame.diagonal_mm'] as $own) {
            self::assertNotContains($own, $changed);
        }
        [$code, $out] = $this->command('takeover', ['from' => $from, 'into' => $into]);
        self::assertSame(0, $code);
        self::assertStringContainsString("gain.roll.p: 44.0\n", $out);
        self::assertStringContainsString("mounting.roll_deg: 0.0\n", $out);
        self::assertStringContainsString("esc.front_left.advance_deg: 15\n", $out, 'what belongs to an ESC stays');
        self::assertSame(2, $this->command('takeover', ['from' => $from, 'into' => $into, '--parts' => 'wiring'])[0]);
        self::assertSame(2, $this->command('takeover', ['from' => $from, 'into' => $into, '--parts' => ''])[0]);
    }

    /**
     * @param array<string, string|bool> $input
     *
     * @return array{int, string}
     */
    private function command(string $name, array $input): array
    {
        $tester = new CommandTester((new Application(self::bootKernel()))->find($name));
        $code = $tester->execute($input, ['capture_stderr_separately' => false]);

        return [$code, $tester->getDisplay()];
    }

    private function file(string $text, string $ending = 'yaml'): string
    {
        $path = \sprintf('%s/%s.%s', sys_get_temp_dir(), uniqid('filters', true), $ending);
        file_put_contents($path, $text);

        return $this->files[] = $path;
    }

    private function csv(FlightLog $log): string
    {
        $names = $log->names();
        $columns = array_map($log->trace(...), $names);
        $text = 'time_s,'.implode(',', $names)."\n";
        foreach ($columns[0] as $i => $v) {
            $text .= \sprintf('%.5f,', $i / $log->clock->rateHz).implode(',', array_map(
                static fn (array $c): string => \sprintf('%.4f', $c[$i]),
                $columns,
            ))."\n";
        }

        return $this->file($text, 'csv');
    }

    /**
     * @param array<mixed> $values
     *
     * @return array<mixed>
     */
    private static function sorted(array $values): array
    {
        sort($values);

        return $values;
    }
}
