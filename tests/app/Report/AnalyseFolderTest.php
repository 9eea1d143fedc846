<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Report;

use Ortholex\App\Report\AnalyseCommand;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\Group;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\Filesystem\Filesystem;

/** A folder of logs at once: a line each, and what was broken off goes on. */
#[Group('slow')]
final class AnalyseFolderTest extends AppCase
{
    public function testEachLogHasALineAndARunThatWasBrokenOffGoesOn(): void
    {
        $folder = sys_get_temp_dir().'/folder'.bin2hex(random_bytes(4));
        mkdir($folder);
        try {
            foreach (['a', 'b'] as $k => $name) {
                $lines = ['time_s,setpoint_roll_dps,rate_measured_roll_dps'];
                for ($i = 0; $i < 9000; ++$i) {
                    $set = 150 * sin($i / (70 + 9 * $k)) + 90 * sin($i / 31);
                    $lines[] = \sprintf('%.3F,%.2F,%.2F', $i / 1000, $set, 150 * sin(($i - 9) / (70 + 9 * $k)) + 90 * sin(($i - 9) / 31));
                }
                file_put_contents("$folder/$name.csv", implode("\n", $lines)."\n");
            }
            file_put_contents("$folder/c.csv", "nothing,of,use\n1,2\n");
            file_put_contents("$folder/notes.txt", 'no log');
            [$code, $said] = self::analyse($folder, ['--out' => "$folder/out.jsonl"]);
            self::assertSame(0, $code, $said);
            self::assertStringContainsString('3 done now, 1 of them not read.', $said);
            $lines = self::lines("$folder/out.jsonl");
            self::assertSame(['a.csv', 'b.csv', 'c.csv'], array_keys($lines));
            self::assertEqualsWithDelta(9.0, $lines['a.csv']['report']['lag']['roll']['ms'] ?? 0, 0.3);
            self::assertIsString($lines['c.csv']['problem'] ?? null);
            $whole = (string) file_get_contents("$folder/out.jsonl");
            file_put_contents("$folder/out.jsonl", substr($whole, 0, -30));
            [, $said] = self::analyse($folder, ['--out' => "$folder/out.jsonl", '--processes' => '1']);
            self::assertStringContainsString('1 done now', $said);
            self::assertStringContainsString('2 done before.', $said);
            self::assertEquals($lines, self::lines("$folder/out.jsonl"), 'the line that was cut off is whole again');
        } finally {
            (new Filesystem())->remove($folder);
        }
    }

    public function testWhatCannotBeDoneIsSaidInALine(): void
    {
        $folder = sys_get_temp_dir().'/folder'.bin2hex(random_bytes(4));
        mkdir($folder);
        try {
            foreach (
                [
                    '--out FILE' => [],
                    'no log' => ['--out' => "$folder/out.jsonl"],
                    'from 1 to' => ['--out' => "$folder/out.jsonl", '--processes' => 'many'],
                ] as $says => $options
            ) {
                [$code, , $error] = self::analyse($folder, $options);
                self::assertSame(2, $code);
                self::assertStringContainsString($says, $error);
                self::assertStringNotContainsString("\n", trim($error));
            }
        } finally {
            (new Filesystem())->remove($folder);
        }
    }

    /**
     * @param array<string, string> $options
     *
     * @return array{int, string, string}
     */
    private static function analyse(string $folder, array $options): array
    {
        $tester = new CommandTester(self::getContainer()->get(AnalyseCommand::class));
        $code = $tester->execute(['log' => $folder] + $options, ['capture_stderr_separately' => true]);

        return [$code, $tester->getDisplay(), $tester->getErrorOutput()];
    }

    /** @return array<string, array<mixed>> by log */
    private static function lines(string $path): array
    {
        $lines = [];
        foreach (explode("\n", trim((string) file_get_contents($path))) as $line) {
            $one = json_decode($line, true);
            self::assertIsArray($one);
            self::assertIsString($one['log'] ?? null);
            $lines[$one['log']] = $one;
        }
        ksort($lines);

        return $lines;
    }
}
