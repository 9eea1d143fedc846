<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Incident\Motion;

use Ortholex\Core\Incident\Motion\Blocks;
use Ortholex\Core\Incident\Motion\CraftModel;
use Ortholex\Core\Incident\Motion\FlightRun;
use Ortholex\Core\Incident\Motion\RotorLaw;
use Ortholex\Tests\core\Truth\TruthCraft;
use Ortholex\Tests\core\Truth\TruthFlight;
use Ortholex\Tests\core\Truth\TruthMoves;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is learned of a craft against what it was made of. */
final class CraftModelTest extends TestCase
{
    /** In calm air and in hard flying alike: least squares alone would find them a twelfth too weak, or thirteen times. */
    #[DataProvider('flights')]
    public function testEachMotorIsAsStrongAsItWasMade(TruthCraft $craft, TruthMoves $moves): void
    {
        $log = (new TruthFlight($craft, 3))->fly($moves, 30.0, withRpm: true);
        $runs = FlightRun::allOf($log);
        $model = CraftModel::fit([Blocks::of($runs[0])], $log->places(), RotorLaw::ofSpeeds($runs));
        self::assertNotNull($model);
        foreach (array_values($craft->motors) as $m => [$forward, $right]) {
            // Full thrust is that of a fresh pack: in flight it sags by up to a quarter.
            $roll = (-rad2deg($craft->fullN) * $right) / $craft->inertia[0];
            $pitch = (rad2deg($craft->fullN) * $forward) / $craft->inertia[1];
            self::assertEqualsWithDelta(0.88 * $roll, $model->effectiveness[0][$m], 0.25 * max(abs($roll), 1000), "roll of $m");
            self::assertEqualsWithDelta(0.88 * $pitch, $model->effectiveness[1][$m], 0.25 * max(abs($pitch), 1000), "pitch of $m");
        }
        self::assertTrue($model->isOfThisCraft($log->places()));
    }

    /** @return iterable<string, array{TruthCraft, TruthMoves}> */
    public static function flights(): iterable
    {
        yield 'light, calm' => [TruthCraft::light(), TruthMoves::Cruise];
        yield 'light, hard' => [TruthCraft::light(), TruthMoves::Hard];
        yield 'heavy, hard' => [TruthCraft::heavy(), TruthMoves::Hard];
        yield 'slow, reversals' => [TruthCraft::slow(), TruthMoves::Reversals];
    }

    public function testTheLawOfARotorIsFoundFromItsSpeeds(): void
    {
        $law = new RotorLaw(0.65, 0.04, 0.06, 0.005);
        $output = [];
        for ($i = 0; $i < 6000; ++$i) {
            $output[] = 30 + 18 * sin($i / 170) + ($i % 700 < 90 ? 45 : 0);
        }
        $speeds = $law->speeds($output, [], 0.002);
        $rpm = array_map(static fn (float $s): float => 21000 * $s, $speeds);
        self::assertEqualsWithDelta(21000, RotorLaw::scale($speeds, $rpm) ?? 0, 1e-6);
        self::assertEqualsWithDelta(0.0, RotorLaw::misfit($speeds, $rpm), 1e-9);
        $found = RotorLaw::best(static fn (RotorLaw $l): float => RotorLaw::misfit($l->speeds($output, [], 0.002), $rpm));
        self::assertSame([0.65, 0.04, 0.06, 0.005], [$found->power, $found->upS, round($found->downS, 6), $found->delayS]);
        self::assertNull(RotorLaw::scale([0.5, 0.5], [1.0, 1.0]), 'too little to tell');
    }

    /** A step of the output: up with one time constant, down with the other (closed form). */
    public function testARotorGathersAndLosesSpeedByItsOwnConstants(): void
    {
        $law = new RotorLaw(1.0, 0.05, 0.1, 0.0);
        $output = [...array_fill(0, 500, 20.0), ...array_fill(0, 500, 60.0), ...array_fill(0, 500, 20.0)];
        $speed = $law->speeds($output, [], 0.001);
        self::assertEqualsWithDelta(0.6 - 0.4 * exp(-1), $speed[549], 1e-3);
        self::assertEqualsWithDelta(0.2 + 0.4 * exp(-1), $speed[1099], 1e-3);
        $half = $law->speeds($output, array_fill(0, 1500, 0.5), 0.001);
        self::assertEqualsWithDelta($speed[700] / 2, $half[700], 1e-9, 'half the supply, half the speed');
    }
}
