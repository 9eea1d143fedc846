<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Command;

use Ortholex\App\Sticks\Evidence;
use Ortholex\Core\Radio\Span\CapturedChannel;
use Ortholex\Core\Radio\Span\OrderCode;
use Ortholex\Core\Switches\FoundSwitch;
use PHPUnit\Framework\TestCase;

/** What was shown of a radio, as the book keeps it. */
final class EvidenceTest extends TestCase
{
    public function testWhatIsKeptComesBack(): void
    {
        $evidence = Evidence::of([])
            ->withOrder(['roll' => ['number' => 2, 'reversed' => true, 'margin' => 12.5]])
            ->withSpans([
                2 => new CapturedChannel(true, 1010.5, 1502.0, 1988.0, 2.5, 3.0),
                5 => new CapturedChannel(false, null, 1000.0, null, 0.0, 0.0),
            ])
            ->withLevers([5 => FoundSwitch::at(5, [1000.0, 1500.0, 2000.0], 1.5), 11 => FoundSwitch::knob(11, 3)]);
        $back = Evidence::of(json_decode((string) json_encode($evidence->toArray()), true) ?? []);
        self::assertEquals($evidence, $back);
        self::assertSame([5], array_keys($back->withoutLever(11)->levers));
        self::assertSame([5, 7, 11], array_keys($back->withLevers([7 => FoundSwitch::at(7, [1000.0, 2000.0])])->levers), 'others stay');
    }

    public function testWhatDoesNotFitIsNotKnown(): void
    {
        $broken = Evidence::of([
            'order' => ['roll' => ['number' => 'two'], 'flaps' => ['number' => 3], 'yaw' => 4],
            'spans' => ['x', 3 => ['moved' => 'yes', 'low' => []]],
            'levers' => [5 => ['positions' => [1000]], 6 => ['positions' => 'none'], 7 => null, 8 => ['positions' => [1000, 'x', 2000]]],
        ]);
        self::assertSame([], $broken->order);
        self::assertFalse($broken->spans[3]->moved);
        self::assertNull($broken->spans[3]->lowUs);
        self::assertSame([8], array_keys($broken->levers));
        self::assertEquals(Evidence::of([]), Evidence::of(['order' => 7, 'spans' => null, 'levers' => 'x']));
    }

    public function testAnOrderIsWholeOnlyWithAllFourSticks(): void
    {
        $one = static fn (int $number): array => ['number' => $number, 'reversed' => false, 'margin' => 9.0];
        $order = ['roll' => $one(1), 'pitch' => $one(2), 'throttle' => $one(3)];
        self::assertTrue(Evidence::of([])->withOrder($order)->channelOrder()->clash?->is(OrderCode::NotShown));
        self::assertTrue(Evidence::of([])->withOrder($order + ['yaw' => $one(2)])->channelOrder()->clash?->is(OrderCode::SameChannel));
        $whole = Evidence::of([])->withOrder($order + ['yaw' => $one(4)])->channelOrder();
        self::assertNull($whole->clash);
        self::assertSame(4, $whole->settings()['channel.yaw.number']);
    }
}
