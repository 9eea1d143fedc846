<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Aids;

use Ortholex\Bench\Position\PlumbG2;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\Time\ManualPace;
use Ortholex\Tests\app\AppCase;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;

/** What the command line tells of position, compass and video. */
final class CommandLineTest extends AppCase
{
    public function testPositionIsReadFromAFileOfSentences(): void
    {
        $state = new PlumbState();
        $state->poweredAt = 1_796_000_000.0 - 20;
        $said = (new PlumbG2($state, true, new ManualPace()))->says(1_796_000_000.0, 1_796_000_060.0);
        foreach ([$said, (string) gzencode($said)] as $i => $bytes) {
            $path = self::file(0 === $i ? '.txt' : '.txt.gz', $bytes);
            [$code, $out] = $this->told('location', ['what' => 'read', 'of' => [$path], '--json' => true]);
            self::assertSame(0, $code, $out);
            $data = json_decode($out, true);
            self::assertIsArray($data);
            self::assertSame(
                ['fix', 'satellites_used', 'hdop', 'first_fix_s', 'whole', 'broken', 'unknown', 'mean', 'wander'],
                array_keys($data),
            );
            self::assertGreaterThan(900, $data['whole']);
            self::assertEqualsWithDelta(54.9, $data['mean']['lat'], 1e-4);
            self::assertGreaterThan($data['wander']['cep50_m'], $data['wander']['r95_m']);
            self::assertGreaterThan(3.0, $data['first_fix_s']);
            unlink($path);
        }
        [$code] = $this->told('location', ['what' => 'read', 'of' => ['/nowhere.txt']]);
        self::assertSame(2, $code);
    }

    /** The figure of the World Magnetic Model 2025 at its own test place 80° N 0° E, 2025.0: 1.28° (NOAA, test values). */
    public function testDeclinationIsTold(): void
    {
        $asked = ['what' => 'declination', 'of' => ['80', '0'], '--date' => '2025-01-01', '--json' => true];
        [$code, $out] = $this->told('location', $asked);
        self::assertSame(0, $code, $out);
        $data = json_decode($out, true);
        self::assertIsArray($data);
        self::assertSame(['declination_deg', 'model', 'valid_until'], array_keys($data));
        self::assertEqualsWithDelta(1.28, $data['declination_deg'], 0.02);
        $bad = [['91', '0', '2026-01-01'], ['x', '0', '2026-01-01'], ['5', '5', '1999-01-01'], ['5', '5', 'yesterdays']];
        foreach ($bad as [$lat, $lon, $date]) {
            $asked = ['what' => 'declination', 'of' => [$lat, $lon], '--date' => $date];
            self::assertSame(2, $this->told('location', $asked)[0], "$lat $lon $date");
        }
    }

    public function testACompassIsFittedOrRefused(): void
    {
        $rows = "x_ut,y_ut,z_ut\n";
        for ($i = 0; $i < 400; ++$i) {
            $z = 1 - 2 * ($i + 0.5) / 400;
            [$r, $a] = [sqrt(1 - $z * $z), 2.399963 * $i];
            $rows .= \sprintf("%.3f,%.3f,%.3f\n", 12 + 50 * $r * cos($a), -7 + 50 * $r * sin($a), 3 + 50 * $z);
        }
        $path = self::file('.csv', $rows);
        [$code, $out] = $this->told('compass', ['what' => 'fit', 'samples' => $path, '--json' => true]);
        self::assertSame(0, $code, $out);
        $data = json_decode($out, true);
        self::assertIsArray($data);
        self::assertEqualsWithDelta([12.0, -7.0, 3.0], $data['offset_ut'], 0.05);
        self::assertEqualsWithDelta([[1, 0, 0], [0, 1, 0], [0, 0, 1]], $data['matrix'], 0.002);
        self::assertEquals(1.0, $data['coverage_share']);
        unlink($path);
        $flat = self::file('.csv', "x_ut,y_ut,z_ut\n".str_repeat("1,2,3\n", 60));
        [$code, $out] = $this->told('compass', ['what' => 'fit', 'samples' => $flat]);
        self::assertSame(2, $code);
        self::assertSame(1, substr_count(trim($out), "\n") + 1, 'one line');
        self::assertStringNotContainsString('{', $out);
        unlink($flat);
    }

    public function testFrequenciesArePlanned(): void
    {
        [$code, $out] = $this->told('video', ['what' => 'plan', '--pilots' => '3', '--taken' => '5740,5800', '--json' => true]);
        self::assertSame(0, $code, $out);
        $data = json_decode($out, true);
        self::assertIsArray($data);
        self::assertCount(3, $data['mhz']);
        self::assertSame([2], array_values(array_unique([
            $this->told('video', ['what' => 'plan', '--pilots' => '9'])[0],
            $this->told('video', ['what' => 'plan', '--pilots' => '2', '--place' => 'the moon'])[0],
            $this->told('video', ['what' => 'plan', '--pilots' => '2', '--taken' => 'loud'])[0],
            $this->told('video', ['what' => 'sing', '--pilots' => '2'])[0],
        ])));
    }

    /**
     * @param array<string, mixed> $with
     *
     * @return array{int, string}
     */
    private function told(string $command, array $with): array
    {
        self::assertNotNull(self::$kernel);
        $tester = new CommandTester((new Application(self::$kernel))->find($command));
        $code = $tester->execute($with, ['capture_stderr_separately' => false]);

        return [$code, $tester->getDisplay()];
    }

    private static function file(string $ending, string $bytes): string
    {
        $path = tempnam(sys_get_temp_dir(), 'aids').$ending;
        file_put_contents($path, $bytes);

        return $path;
    }
}
