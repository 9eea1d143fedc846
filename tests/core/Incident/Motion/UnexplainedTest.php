<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Incident\Motion;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Incident\Motion\CraftModel;
use Ortholex\Core\Incident\Motion\Doubt;
use Ortholex\Core\Incident\Motion\Motion;
use Ortholex\Core\Incident\Motion\Unexplained;
use Ortholex\Core\Signal\Statistics;
use Ortholex\Tests\core\Truth\TruthCraft;
use Ortholex\Tests\core\Truth\TruthFault;
use Ortholex\Tests\core\Truth\TruthFlight;
use Ortholex\Tests\core\Truth\TruthMoves;
use PHPUnit\Framework\TestCase;

/** How rough what is unexplained is: wash makes it so, what sets in and stays does not. */
final class UnexplainedTest extends TestCase
{
    public function testWashIsRoughWhereItIs(): void
    {
        $one = self::of((new TruthFlight(TruthCraft::long(), 3))->fly(TruthMoves::Chops, 20.0));
        $doubt = Doubt::of([$one]);
        $rough = $calm = [];
        foreach ($one->washed as $b => $washed) {
            if ($washed) {
                $rough[] = $one->roughness[0][$b];
                self::assertGreaterThanOrEqual($one->roughness[0][$b], $doubt->at($one, 0, $b), 'what is usual there is no less');
            } else {
                $calm[] = $doubt->at($one, 0, $b);
                self::assertSame(0.0, $one->roughness[0][$b]);
            }
        }
        self::assertGreaterThan(300, \count($rough));
        self::assertGreaterThan(2.5 * Statistics::median($calm), Statistics::quantile($rough, 0.9));
    }

    public function testALossMakesNothingRough(): void
    {
        $craft = TruthCraft::long();
        $flight = new TruthFlight($craft, 908);
        $one = self::of($flight->fly(TruthMoves::Hard, 20.0, TruthFault::MotorStops, 'front_right', 12.0, 0.2));
        self::assertGreaterThan(0.15, $flight->toLose, 'it had something to lose');
        $loss = $rough = [];
        for ($b = $one->blocks->blocks(12.05), $end = $one->blocks->blocks(12.2); $b < $end; ++$b) {
            $loss[] = abs($one->off[0][$b]);
            $rough[] = $one->roughness[0][$b];
        }
        self::assertGreaterThan(0.0, min($rough), 'it is in its own air');
        self::assertLessThan(0.35 * Statistics::median($loss), Statistics::median($rough));
    }

    public function testNoiseOfAKnownSpreadIsAsRoughAsThat(): void
    {
        $method = new \ReflectionMethod(Unexplained::class, 'rough');
        $rough = $method->invoke(null, self::noise(4000, 250.0), array_fill(0, 4000, true));
        self::assertIsArray($rough);
        self::assertEqualsWithDelta(250.0, array_sum($rough) / \count($rough), 12.0);
        self::assertSame([0.0, 0.0, 0.0], $method->invoke(null, [5.0, 5.0, 5.0], [true, true, true]));
    }

    /** @return list<float> */
    private static function noise(int $n, float $spread): array
    {
        $flight = new TruthFlight(TruthCraft::light(), 5);
        $sum = static fn (): float => array_sum(array_map(static fn (): float => $flight->next(), range(1, 12))) - 6;

        return array_map(static fn (): float => $spread * $sum(), range(1, $n));
    }

    private static function of(FlightLog $log): Unexplained
    {
        $motion = Motion::of($log);
        self::assertInstanceOf(CraftModel::class, $motion->model);

        return Unexplained::of($motion->blocks[0], $motion->model);
    }
}
