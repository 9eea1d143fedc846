<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Incident\Motion;

use Ortholex\Core\Incident\Motion\Spikes;
use PHPUnit\Framework\TestCase;

/** Single samples that no body can follow, and moves that a body can. */
final class SpikesTest extends TestCase
{
    public function testASampleThatStandsAloneIsSetBetweenItsNeighbours(): void
    {
        $rate = array_map(static fn (int $i): float => 40 * sin($i / 30) + 0.5 * (-1) ** $i, range(0, 999));
        $with = $rate;
        $with[300] += 900;
        $with[777] -= 300;
        self::assertSame('300 777', implode(' ', Spikes::at(array_values($with))));
        self::assertEqualsWithDelta(($rate[299] + $rate[301]) / 2, Spikes::without(array_values($with))[0][300], 1e-9);
        [$halved, $steps] = Spikes::without(array_values($with), 2);
        self::assertSame([150, 388], $steps, 'two averaged into one');
        self::assertEqualsWithDelta((($rate[299] + $rate[301]) / 2 + $rate[301]) / 2, $halved[150], 1e-9);
        self::assertEqualsWithDelta($rate[500], Spikes::without(array_values($with))[0][500], 1e-12, 'and nothing else is touched');
    }

    public function testThroughAFilterItIsStillOutAndBack(): void
    {
        $rate = array_map(static fn (int $i): float => 60 * sin($i / 200) + 2 * sin($i * 1.7), range(0, 1999));
        for ($k = 0; $k < 5; ++$k) {
            $rate[900 + $k] += 700 * exp(-$k / 1.5);
        }
        self::assertEquals([900], Spikes::briefly(array_values($rate), 0.002));
        $hit = array_map(static fn (int $i): float => 60 * sin($i / 200) + ($i > 900 ? 500 * exp(-($i - 900) / 60) : 0), range(0, 1999));
        self::assertSame([], Spikes::briefly($hit, 0.002), 'a knock stays');
        self::assertSame([], Spikes::briefly([1.0, 2.0], 0.002));
    }

    public function testAStepAndAHardFlipAreNoSpikes(): void
    {
        $step = array_map(static fn (int $i): float => $i < 500 ? 0.0 : 800.0, range(0, 999));
        self::assertSame([], Spikes::at($step));
        $flip = array_map(static fn (int $i): float => 900 * sin($i / 12), range(0, 999));
        self::assertSame([], Spikes::at($flip));
        $ring = static fn (int $i): float => ($i < 700 ? 0.2 : 160) * sin($i * 1.05) + 3 * sin($i / 9);
        $rings = array_map($ring, range(0, 999));
        self::assertSame([], Spikes::at($rings), 'a frame that rings at a sixth of the rate');
        self::assertSame([], Spikes::briefly($rings, 0.001));
        $rings[820] += 1500;
        self::assertSame([820], Spikes::at(array_values($rings)), 'but over its ringing one stands out');
        self::assertSame([], Spikes::at([]));
        self::assertSame([[5.0, 700.0], []], Spikes::without([5.0, 700.0]));
    }
}
