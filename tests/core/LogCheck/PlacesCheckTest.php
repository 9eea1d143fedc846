<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\LogCheck;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Incident\Motion\Motion;
use Ortholex\Core\LogCheck\PlacesCheck;
use Ortholex\Tests\core\Truth\TruthCraft;
use Ortholex\Tests\core\Truth\TruthFlight;
use Ortholex\Tests\core\Truth\TruthMoves;
use PHPUnit\Framework\TestCase;

/** Motors that are said to sit where the motion denies it. */
final class PlacesCheckTest extends TestCase
{
    public function testAWrongOrderIsToldAndTheRightOneNamed(): void
    {
        $log = (new TruthFlight(TruthCraft::heavy(), 5))->fly(TruthMoves::Reversals, 20.0);
        self::assertNull(self::of($log), 'as it is');
        $order = ['front_right' => 'rear_right', 'rear_right' => 'rear_left', 'rear_left' => 'front_left', 'front_left' => 'front_right'];
        $names = [];
        foreach ($order as $true => $said) {
            $names["output_{$true}_pct"] = "output_{$said}_pct";
        }
        $check = self::of($log->with($names));
        self::assertNotNull($check);
        self::assertEqualsCanonicalizing(array_flip($order), $check->better);
        self::assertSame(array_flip($order)['rear_left'], $check->better['rear_left'], 'said to be rear left, it is rear right');
        self::assertLessThan(0.5, $check->likeness);
    }

    public function testWithoutAModelOrPlacesNothingIsSaid(): void
    {
        self::assertNull(PlacesCheck::of(null, ['front_left', 'front_right', 'rear_left']));
        $log = (new TruthFlight(TruthCraft::heavy(), 5))->fly(TruthMoves::Reversals, 12.0);
        self::assertNull(PlacesCheck::of(Motion::of($log)->model, ['1', '2', '3', '4']));
    }

    private static function of(FlightLog $log): ?PlacesCheck
    {
        return PlacesCheck::of(Motion::of($log)->model, $log->places());
    }
}
