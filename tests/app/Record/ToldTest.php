<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Record;

use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\TestWith;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\Yaml\Yaml;

/** `bin/ortholex craft` and `settings check`: the book from the command line, read only. */
final class ToldTest extends AppCase
{
    public function testCraftAreListedAndShown(): void
    {
        $this->link();
        [$code, $out] = $this->command('craft', ['what' => 'list']);
        self::assertSame(0, $code);
        self::assertMatchesRegularExpression('~^dunlin +3-inch, 4-cell +never read$~m', $out);
        self::assertMatchesRegularExpression('~^curlew +5-inch, 6-cell +last read 20\d\d-\d\d-\d\d \d\d:\d\d$~m', $out);
        $all = json_decode($this->command('craft', ['what' => 'list', '--json' => true])[1], true)['craft'] ?? [];
        self::assertSame(['dunlin', 'curlew', 'bittern'], array_column($all, 'craft'));
        $one = Yaml::parse($this->command('craft', ['what' => 'show', 'one' => 'curlew'])[1]);
        self::assertSame('Quern F7', $one['board']);
        self::assertSame('Loam 26.01', $one['firmware']);
        self::assertNotEmpty($one['next']);
    }

    public function testWhatIsExportedHasNoDifferenceAndAChangeOne(): void
    {
        $this->link();
        [$code, $out] = $this->command('craft', ['what' => 'export', 'one' => 'curlew']);
        self::assertSame(0, $code, $out);
        $settings = Yaml::parse($out);
        self::assertCount(\count($this->craft()->settings), $settings);
        $path = $this->written($out);
        $same = ['what' => 'diff', 'one' => 'curlew', 'other' => $path];
        self::assertSame("no difference\n", $this->command('craft', $same)[1]);
        $head = strstr($out, "\n", true)."\n";
        $other = $this->written($head.Yaml::dump(['gain.roll.p' => 19.5, 'motors.idle_pct' => 6.5] + $settings));
        $sides = ['what' => 'diff', 'one' => 'curlew', 'other' => $other];
        [$code, $out] = $this->command('craft', $sides);
        self::assertSame(0, $code);
        $gains = '~gains\n +gain\.roll\.p +33(\.0)? → 19\.5\n';
        self::assertMatchesRegularExpression($gains.'motors\n +motors\.idle_pct +5(\.0)? → 6\.5\n~', $out);
        $told = json_decode($this->command('craft', $sides + ['--json' => true])[1], true);
        self::assertSame(['gains', 'motors'], array_keys($told['differences']));
        self::assertSame([], $told['only_one']);
        // A snapshot stays as it was while the craft goes on.
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.p' => 44.0]]);
        $this->post('/craft/curlew/commit', ['reason' => 'firmer']);
        $out = $this->command('craft', ['what' => 'diff', 'one' => 'curlew:As found at first link', 'other' => 'curlew'])[1];
        self::assertMatchesRegularExpression('~^gains\n +gain\.yaw\.p +[\d.]+ → 44(\.0)?\n$~', $out);
    }

    public function testSettingsAreCheckedOneByOneAndTogether(): void
    {
        $good = $this->written("gain.roll.p: 30\nmotors.rpm_feedback: true\nnotch.motor.orders: '1,2'\n");
        [$code, $out] = $this->command('settings', ['what' => 'check', 'file' => $good]);
        self::assertSame([0, "3 settings, all in range, and they hold together.\n"], [$code, $out]);
        $apart = $this->written("notch.motor.orders: '1,2'\nmotors.rpm_feedback: false\n");
        [$code, $out] = $this->command('settings', ['what' => 'check', 'file' => $apart]);
        self::assertSame(1, $code);
        self::assertStringContainsString('Motor notches follow nothing while rpm feedback is off.', $out);
        $wrong = $this->written("gain.roll.p: 30\ngain.roll.d: 900\n");
        [$code, $out] = $this->command('settings', ['what' => 'check', 'file' => $wrong]);
        self::assertSame(2, $code);
        self::assertStringContainsString('line 2', $out);
    }

    /** @param array<string, string> $words */
    #[TestWith(['craft', ['what' => 'sell'], '“sell” is not one of'])]
    #[TestWith(['craft', ['what' => 'show', 'one' => 'heron'], 'There is no craft “heron”. There are: dunlin, curlew, bittern.'])]
    #[TestWith(['craft', ['what' => 'export', 'one' => 'dunlin'], 'Dunlin has never been read: link it once on sheet 11.'])]
    #[TestWith(['craft', ['what' => 'diff', 'one' => 'curlew'], 'Name two'])]
    #[TestWith(['craft', ['what' => 'diff', 'one' => 'curlew:nothing', 'other' => 'curlew'], 'has no snapshot “nothing”'])]
    #[TestWith(['craft', ['what' => 'diff', 'one' => 'nowhere.yaml', 'other' => 'curlew'], 'nowhere.yaml is no file'])]
    #[TestWith(['settings', ['what' => 'mend', 'file' => 'x'], 'Settings can be checked'])]
    #[TestWith(['settings', ['what' => 'check', 'file' => 'x.yaml', '--motors' => '99'], '--motors takes a number from 3 to 8, not “99”.'])]
    #[TestWith(['settings', ['what' => 'check', 'file' => 'x.yaml', '--processor' => '<b>'], 'not “<b>”'])]
    public function testWhatCannotBeDoneSaysWhy(string $command, array $words, string $says): void
    {
        $revision = $this->craft()->revision;
        [$code, $out] = $this->command($command, $words);
        self::assertSame(2, $code);
        self::assertStringContainsString($says, $out);
        self::assertSame($revision, $this->craft()->revision);
    }

    /**
     * @param array<string, string|bool> $input
     *
     * @return array{int, string} exit and what it said
     */
    private function command(string $name, array $input): array
    {
        $tester = new CommandTester((new Application(self::bootKernel()))->find($name));
        $code = $tester->execute($input, ['capture_stderr_separately' => false]);

        return [$code, $tester->getDisplay()];
    }
}
