<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Work;

use Ortholex\App\Work\Process\TimeLeft;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

final class TimeLeftTest extends TestCase
{
    public function testSteadyWorkCountsDownToItsEnd(): void
    {
        $left = new TimeLeft();
        self::assertNull($left->at(0.0, 0.0)['left_s']);
        self::assertNull($left->at(2.0, 0.02)['left_s'], 'too early to tell');
        foreach ([10 => 90.0, 50 => 50.0, 99 => 1.0] as $t => $s) {
            self::assertSame(['left_s' => $s, 'slower' => false], $left->at((float) $t, $t / 100));
        }
    }

    public function testWorkThatIsQuickerIsToldAnew(): void
    {
        $left = new TimeLeft();
        $left->at(0.0, 0.0);
        self::assertSame(90.0, $left->at(10.0, 0.1)['left_s']);
        self::assertSame(8.0, $left->at(12.0, 0.6)['left_s']);
    }

    public function testWhatKnowsItselfIsBelieved(): void
    {
        self::assertSame(7.0, (new TimeLeft())->at(0.0, 0.9, 6.2)['left_s']);
    }

    /** However the work goes, the figure climbs only together with the word. */
    public function testItNeverClimbsWithoutAWord(): void
    {
        $random = new Lcg(5);
        $climbs = 0;
        for ($run = 0; $run < 300; ++$run) {
            $left = new TimeLeft();
            $left->at(0.0, 0.0);
            [$share, $t, $before] = [0.0, 0.0, null];
            while ($share < 1.0) {
                $t += 0.2 + $random->whole(0, 1000) / 1000;
                $share = min(1.0, $share + $random->whole(0, 1000) / 1000 * $random->whole(0, 1000) / 1000 * 0.05);
                ['left_s' => $told, 'slower' => $slower] = $left->at($t, $share);
                if (null !== $before && null !== $told && $told > $before) {
                    self::assertTrue($slower, "run $run: from $before to $told s unsaid");
                    ++$climbs;
                }
                self::assertFalse(null !== $before && null === $told, 'once told, always told');
                $before = $told;
            }
        }
        self::assertGreaterThan(20, $climbs, 'some work was slower than it looked');
    }
}
