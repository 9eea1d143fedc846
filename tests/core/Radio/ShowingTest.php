<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Radio;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Radio\Span\OrderCode;
use Ortholex\Core\Radio\Span\Showing;
use Ortholex\Core\Radio\Span\StickHistory;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** When a stick that is asked for counts as shown; hands are drawn as corners (seconds, µs), at 150 frames a second. */
final class ShowingTest extends TestCase
{
    public function testASprungStickIsShownOnceItIsBackAndNotBefore(): void
    {
        $way = [[0, 1500], [0.3, 1500], [0.5, 1930], [0.9, 1930], [1.0, 1500], [1.3, 1500]];
        $shown = Showing::of(Channel::Roll, self::history([2 => $way]), [])->stick;
        self::assertSame(2, $shown?->number);
        self::assertFalse($shown->reversed);
        $held = Showing::of(Channel::Roll, self::history([2 => \array_slice($way, 0, 4)]), []);
        self::assertNull($held->stick);
        self::assertNull($held->why);
        self::assertNull(Showing::of(Channel::Roll, self::history([]), [])->stick);
        self::assertNull(Showing::of(Channel::Roll, new StickHistory([], []), [])->stick);
    }

    public function testAThrottleThatIsLeftUpRunsForwardWhereverItBegan(): void
    {
        $fromBelow = [[0, 1040], [0.3, 1040], [0.5, 1960], [0.7, 1960]];
        $fromAbove = [[0, 1960], [0.3, 1960], [0.5, 1040], [1.0, 1040], [1.2, 1960], [1.4, 1960]];
        $fromMiddle = [[0, 1500], [0.2, 1040], [0.6, 1040], [0.8, 1960], [1.0, 1960]];
        foreach ([$fromBelow, $fromAbove, $fromMiddle] as $way) {
            $shown = Showing::of(Channel::Throttle, self::history([1 => $way]), [])->stick;
            self::assertSame(1, $shown?->number);
            self::assertFalse($shown->reversed);
        }
    }

    public function testAThrottleThatWentDownRunsBackwardsOnlyIfItStaysThere(): void
    {
        $down = fn (float $until): StickHistory => self::history([1 => [[0, 1960], [0.3, 1960], [0.5, 1040], [$until, 1040]]]);
        self::assertNull(Showing::of(Channel::Throttle, $down(1.5), [])->stick, 'a hand that fetches it from the top');
        self::assertNull(Showing::of(Channel::Throttle, $down(2.9), [])->stick);
        self::assertTrue(Showing::of(Channel::Throttle, $down(3.2), [])->stick?->reversed);
    }

    public function testTwoThatMoveAlikeAreSaidOnceBothRest(): void
    {
        $up = [[0, 1040], [0.3, 1040], [0.5, 1960]];
        $aside = [[0, 1500], [0.3, 1500], [0.5, 1930], [0.9, 1930], [1.0, 1500]];
        $two = fn (float $until): StickHistory => self::history([1 => [...$up, [$until, 1960]], 4 => [...$aside, [$until, 1500]]]);
        $soon = Showing::of(Channel::Yaw, $two(1.3), []);
        self::assertNull($soon->stick ?? $soon->why);
        $late = Showing::of(Channel::Yaw, $two(1.8), []);
        self::assertNull($late->stick);
        self::assertTrue($late->why?->is(OrderCode::TwoMoved));
        self::assertSame('yaw', $late->why->figures['stick']);
    }

    public function testAChannelThatAnotherStickHasIsNotTakenTwice(): void
    {
        $way = [[0, 1500], [0.3, 1500], [0.5, 1070], [0.9, 1070], [1.0, 1500], [1.3, 1500]];
        $again = Showing::of(Channel::Pitch, self::history([2 => $way]), ['roll' => 2]);
        self::assertNull($again->stick);
        self::assertTrue($again->why?->is(OrderCode::SameChannel));
        self::assertSame(['stick' => 'pitch', 'other' => 'roll', 'number' => 2], $again->why->figures);
        self::assertTrue(Showing::of(Channel::Pitch, self::history([2 => $way]), ['roll' => 3])->stick?->reversed);
    }

    public function testTheThrottleMovedInsteadOfASprungStickIsSaidThoughItStays(): void
    {
        $up = fn (float $until): StickHistory => self::history([1 => [[0, 1040], [0.3, 1040], [0.5, 1960], [$until, 1960]]]);
        self::assertNull(Showing::of(Channel::Yaw, $up(0.9), ['throttle' => 1])->why, 'it may still come back');
        self::assertTrue(Showing::of(Channel::Yaw, $up(1.2), ['throttle' => 1])->why?->is(OrderCode::SameChannel));
        self::assertNull(Showing::of(Channel::Roll, $up(2.5), [])->why, 'a stick that is held for a while');
        $stays = Showing::of(Channel::Roll, $up(3.2), []);
        self::assertNull($stays->stick);
        self::assertTrue($stays->why?->is(OrderCode::NotBack));
        self::assertSame(['stick' => 'roll', 'number' => 1], $stays->why->figures);
    }

    /** @param array<int, list<array{float|int, float|int}>> $ways by channel; others rest */
    private static function history(array $ways): StickHistory
    {
        $dice = new Lcg(11);
        $end = max([1.0, ...array_map(static fn (array $way): float => (float) $way[\count($way) - 1][0], array_values($ways))]);
        $times = $channels = [];
        for ($t = 0.0; $t < $end; $t += 1 / 150) {
            $times[] = $t;
            foreach ([1, 2, 3, 4] as $number) {
                $channels[$number][] = self::at($ways[$number] ?? [[0, 1500]], $t) + 2 * $dice->normal();
            }
        }

        return new StickHistory($times, $channels);
    }

    /** @param list<array{float|int, float|int}> $way */
    private static function at(array $way, float $t): float
    {
        for ($i = 1; $i < \count($way); ++$i) {
            [[$from, $low], [$to, $high]] = [$way[$i - 1], $way[$i]];
            if ($t < $to) {
                return $low + ($high - $low) * ($t - $from) / ($to - $from);
            }
        }

        return (float) $way[\count($way) - 1][1];
    }
}
