<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Incident;

use Ortholex\Core\Craft\Place;
use Ortholex\Core\Incident\IncidentEvent;
use Ortholex\Core\Incident\Motion\FlightRun;
use Ortholex\Core\Incident\Saying\EventCode;
use Ortholex\Core\Incident\Timeline;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Cause before effect, and every effect the way physics has it. */
final class TimelineTest extends TestCase
{
    private const LOST_AT_S = 5.0;

    /** The corner that nothing holds up any more drops. */
    #[DataProvider('corners')]
    public function testTheCornerThatLostItsMotorDrops(Place $lost, EventCode $rolls, EventCode $pitches): void
    {
        $run = self::flight($lost);
        $events = Timeline::of($run, $run->nearestSteps(self::LOST_AT_S), $run->count() - 1, self::places(), $lost->value);
        $codes = array_map(static fn (IncidentEvent $e) => $e->what->code, $events);
        self::assertSame(EventCode::MotorStopsPushing, $codes[0], 'the cause comes first');
        self::assertSame($lost->value, $events[0]->what->figures['place']);
        self::assertEqualsWithDelta(self::LOST_AT_S, $events[0]->atS, 0.003);
        self::assertContains($rolls, $codes);
        self::assertContains($pitches, $codes);
        $times = array_column($events, 'atS');
        $sorted = $times;
        sort($sorted);
        self::assertSame($sorted, $times, 'in order of time');
        self::assertLessThan(1.0, $times[1] - $times[0], 'the first effect follows at once');
    }

    /** @return iterable<string, array{Place, EventCode, EventCode}> */
    public static function corners(): iterable
    {
        yield 'front right' => [Place::FrontRight, EventCode::RollsRight, EventCode::DropsNose];
        yield 'rear right' => [Place::RearRight, EventCode::RollsRight, EventCode::LiftsNose];
        yield 'rear left' => [Place::RearLeft, EventCode::RollsLeft, EventCode::LiftsNose];
        yield 'front left' => [Place::FrontLeft, EventCode::RollsLeft, EventCode::DropsNose];
    }

    public function testTheMotorThatIsGoneIsCalledForFull(): void
    {
        $run = self::flight(Place::RearLeft);
        $events = Timeline::of($run, $run->nearestSteps(self::LOST_AT_S), $run->count() - 1, self::places(), 'rear_left');
        $called = array_values(array_filter($events, static fn (IncidentEvent $e): bool => $e->what->is(EventCode::CalledForFull)));
        self::assertNotSame([], $called);
        self::assertSame('rear_left', $called[0]->what->figures['place'], 'the loop asks most of the corner that drops');
    }

    public function testWithoutAnyoneToBlameItBeginsWithTheRotation(): void
    {
        $run = self::flight(null);
        $events = Timeline::of($run, $run->nearestSteps(self::LOST_AT_S), $run->nearestSteps(self::LOST_AT_S + 1), self::places(), null);
        self::assertCount(1, $events, 'a flight in which nothing happens has no effects either');
        self::assertTrue($events[0]->what->is(EventCode::RotationBegins));
    }

    private static function flight(?Place $lost): FlightRun
    {
        $log = (new KnownFlight(11))->fly(KnownFlight::quadX(), 45.0, $lost?->value, self::LOST_AT_S, 'mixed', 7.0);

        return FlightRun::allOf($log)[0];
    }

    /** @return list<string> */
    private static function places(): array
    {
        return array_keys(KnownFlight::quadX());
    }
}
