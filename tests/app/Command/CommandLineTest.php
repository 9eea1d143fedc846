<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Command;

use Ortholex\Core\Radio\Protocol\Protocol;
use Ortholex\Core\Radio\Protocol\RadioFrame;
use Ortholex\Core\Radio\Protocol\Sbus;
use Ortholex\Core\Radio\Wire\SerialWriter;
use Ortholex\Tests\app\AppCase;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;

/** Captures and switch maps on the command line. */
final class CommandLineTest extends AppCase
{
    public function testAWireIsIdentified(): void
    {
        $line = Protocol::Sbus->line();
        self::assertNotNull($line);
        $writer = new SerialWriter($line);
        for ($k = 0; $k < 12; ++$k) {
            $writer->send(Sbus::encode(new RadioFrame(array_fill(0, 16, 1312.5), false, $k > 9)), 9000.0 * $k + 50);
        }
        $csv = "# from a logic analyser\nlevel;time_us\n";
        foreach ($writer->edges()->timesUs as $i => $time) {
            $csv .= $writer->edges()->levels[$i].';'.round($time, 2)."\n";
        }
        $path = $this->written($csv);
        [$code, $said] = $this->run1('radio', ['what' => 'identify', 'file' => $path, '--json' => true]);
        self::assertSame(0, $code);
        self::assertSame(
            '{"protocol":"sbus","baud":100000,"inverted":true,"frames":12,"interval_ms":9.0,"lost_share":0.0,"failsafe":true,'.
                '"channels_us":['.
                implode(',', array_fill(0, 16, '1312.5')).']}',
            trim($said),
        );
        $packed = "$path.gz";
        file_put_contents($packed, gzencode($csv));
        $said = $this->run1('radio', ['what' => 'identify', 'file' => $packed])[1];
        self::assertStringContainsString('sbus at 100000 baud, inverted', $said);
        file_put_contents($packed, substr((string) gzencode($csv), 0, 200));
        self::assertSame(2, $this->run1('radio', ['what' => 'identify', 'file' => $packed])[0], 'a torn file is said to be torn');
        unlink($packed);
    }

    public function testSpansAreLearned(): void
    {
        $csv = "time_s,ch1_us,ch2_us\n";
        foreach ([[100, 1500], [20, 1080], [60, 1500], [20, 1930], [100, 1500]] as [$frames, $us]) {
            for ($i = 0; $i < $frames; ++$i) {
                $csv .= \sprintf("%.3f,%d,1000\n", substr_count($csv, "\n") / 100, $us);
            }
        }
        $found = json_decode($this->run1('radio', ['what' => 'spans', 'file' => $this->written($csv)])[1], true);
        self::assertSame(
            ['channels' => [
                '1' => ['moved' => true, 'low_us' => 1080.0, 'middle_us' => 1500.0, 'high_us' => 1930.0, 'jitter_us' => 0.0],
                '2' => ['moved' => false, 'low_us' => null, 'middle_us' => 1000.0, 'high_us' => null, 'jitter_us' => 0.0],
            ]],
            $found,
        );
    }

    /** @return iterable<string, array{string, string, string}> what is read, the file, and what is said */
    public static function unsound(): iterable
    {
        yield 'no columns' => ['identify', "a,b\n1,2\n", 'It must have time_us, level'];
        yield 'no level' => ['identify', "time_us,level\n1,2\n", 'Line 2: a level is 0 or 1'];
        yield 'back in time' => ['identify', "time_us,level\n5,1\n4,0\n", 'Line 3: time goes back from 5 to 4'];
        yield 'no number' => ['spans', "time_s,ch1_us\n0,fast\n", 'Line 2: ch1_us is “fast”'];
        yield 'no channel' => ['spans', "time_s,x\n0,1\n", 'ch1_us'];
        yield 'no rows' => ['spans', "time_s,ch1_us\n", 'holds no row'];
        yield 'binary' => ['identify', "\x00\x01\x02", 'binary bytes'];
        yield 'another reading' => ['dance', "time_us,level\n", '“identify” or “spans”'];
    }

    #[\PHPUnit\Framework\Attributes\DataProvider('unsound')]
    public function testUnsoundCapturesAreRefusedByLine(string $what, string $csv, string $why): void
    {
        [$code, $said] = $this->run1('radio', ['what' => $what, 'file' => $this->written($csv)]);
        self::assertSame(2, $code);
        self::assertStringContainsString($why, $said);
    }

    public function testASwitchMapIsReadAndMinded(): void
    {
        $yaml = "action.arm.on_in: '5:1700-'\naction.beeper.on_in: '6:1700-'\naction.angle.on_in: '7:-1500'\n".
            "switches: {5: [1000, 1500, 2000], 6: [1000, 2000], 7: [1000, 2000]}\n";
        [$code, $said] = $this->run1('switches', ['file' => $this->written($yaml), '--at' => '5=1900,6=1000,7=1200', '--json' => true]);
        self::assertSame(0, $code);
        $told = json_decode($said, true);
        self::assertIsArray($told);
        self::assertSame(['arm', 'angle'], $told['on']);
        self::assertIsArray($told['warnings']);
        self::assertSame(['switch.arm_in_one_flick'], array_column($told['warnings'], 'code'));
        // Without positions, one between every two edges.
        $bare = "action.arm.on_in: '5:1700-'\naction.beeper.on_in: '5:1300-1700'\naction.horizon.on_in: '6:1200-1800'\n";
        [, $said] = $this->run1('switches', ['file' => $this->written($bare), '--at' => '5=1500']);
        self::assertSame("on: beeper\nnothing to watch out for\n", $said);
        foreach (["action.arm.on_in: '5'\n", "action.dance.on_in: '5:1-'\n", "switches: {5: [1]}\n", ": :\n", "- 1\n"] as $bad) {
            self::assertSame(2, $this->run1('switches', ['file' => $this->written($bad)])[0], $bad);
        }
        self::assertSame(2, $this->run1('switches', ['file' => $this->written($bare), '--at' => '5:1500'])[0]);
    }

    /**
     * @param array<string, string|bool> $arguments
     *
     * @return array{int, string}
     */
    private function run1(string $command, array $arguments): array
    {
        $kernel = self::$kernel;
        self::assertNotNull($kernel);
        $tester = new CommandTester((new Application($kernel))->find($command));
        $code = $tester->execute($arguments, ['capture_stderr_separately' => false]);

        return [$code, $tester->getDisplay()];
    }
}
