<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Work;

use Ortholex\App\Work\Process\SideBySide;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Together\OneByOne;
use PHPUnit\Framework\TestCase;

/** Parts in processes of their own give what they give one by one. */
final class SideBySideTest extends TestCase
{
    public function testPartsSeeWhatIsHereAndTheirResultsComeBack(): void
    {
        $here = range(1, 200_000);
        $parts = [
            'sum' => static fn (): array => [array_sum($here), getmypid()],
            'long' => static fn (): array => array_map(static fn (int $v): int => 2 * $v, $here),
            'mine' => static fn (): array => [getmypid()],
        ];
        $done = (new SideBySide())->all($parts);
        self::assertSame(array_sum($here), $done['sum'][0]);
        self::assertSame($parts['long'](), $done['long']);
        self::assertSame([getmypid()], $done['mine'], 'the last is done here');
        self::assertNotSame(getmypid(), $done['sum'][1], 'the others are not');
    }

    public function testAPartWhoseProcessDiesIsDoneHere(): void
    {
        $mine = getmypid();
        $done = (new SideBySide())->all([
            'dies' => static function () use ($mine): array {
                if (getmypid() !== $mine) {
                    posix_kill((int) getmypid(), \SIGKILL);
                }

                return ['whole'];
            },
            'last' => static fn (): array => [1],
        ]);
        self::assertSame(['whole'], $done['dies']);
        $this->expectExceptionMessage('as it would here');
        (new SideBySide())->all([
            'fails' => static fn (): array => throw new \RuntimeException('as it would here'),
            'last' => static fn (): array => [1],
        ]);
    }

    public function testWhereThePartHereFailsTheOthersEnd(): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'goes-on');
        try {
            (new SideBySide())->all([
                'late' => static function () use ($path): array {
                    usleep(400_000);
                    file_put_contents($path, 'went on');

                    return [1];
                },
                'here' => static fn (): array => throw new \RuntimeException('stopped here'),
            ]);
            self::fail('It was to fail.');
        } catch (\RuntimeException $e) {
            self::assertSame('stopped here', $e->getMessage());
        }
        usleep(700_000);
        $left = file_get_contents($path);
        unlink($path);
        self::assertSame('', $left);
    }

    public function testALogReadFromDiskIsAnalysedAlike(): void
    {
        $path = tempnam(sys_get_temp_dir(), 'both').'.csv';
        $rows = ['time_s,setpoint_roll_dps,rate_measured_roll_dps,throttle_pct,output_front_right_pct'];
        for ($i = 0; $i < 20000; ++$i) {
            $set = 200 * sin($i / 90) * sin($i / 731);
            $rate = 200 * sin(($i - 12) / 90) * sin(($i - 12) / 731) + ($i % 7) - 3;
            $rows[] = \sprintf('%.4F,%.2F,%.2F,%.2F,%.2F', $i / 1000, $set, $rate, 30 + 20 * sin($i / 3000), 40 + $i % 5);
        }
        file_put_contents($path, implode("\n", $rows));
        $log = LogReader::readFile($path);
        unlink($path);
        $both = FlightAnalysis::of($log, true, new SideBySide());
        self::assertEquals(FlightAnalysis::of($log, true, new OneByOne()), $both);
        self::assertNotNull($both->axes['roll']->step);
    }
}
