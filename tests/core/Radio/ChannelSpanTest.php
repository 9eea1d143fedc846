<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Radio;

use Ortholex\Core\Radio\ChannelSpan;
use Ortholex\Core\Radio\SpanError;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ChannelSpanTest extends TestCase
{
    /** Each half has a slope of its own: a middle that sits off is zero all the same, and both ends are reached. */
    public function testEndsAndMiddleAreReachedWhereTheyAre(): void
    {
        $span = ChannelSpan::of(1010, 1480, 1985);
        self::assertSame([-1.0, 0.0, 1.0], [$span->position(1010), $span->position(1480), $span->position(1985)]);
        self::assertEqualsWithDelta(-0.5, $span->position(1245), 1e-12);
        self::assertEqualsWithDelta(0.5, $span->position(1732.5), 1e-12);
        self::assertSame([-1.0, 1.0], [$span->position(800), $span->position(2200)], 'beyond the ends it goes no further');
    }

    public function testADeadBandTakesNothingFromTheEnds(): void
    {
        $span = ChannelSpan::of(1000, 1500, 2000);
        self::assertSame(0.0, abs($span->position(1509, 10)));
        self::assertSame(0.0, abs($span->position(1490, 10)));
        self::assertSame([-1.0, 1.0], [$span->position(1000, 10), $span->position(2000, 10)]);
        self::assertEqualsWithDelta((250 - 10) / (500 - 10), $span->position(1750, 10), 1e-12);
    }

    /** Backwards is the mirror image; more pulse is never less position; all of it lies within −1..1. */
    public function testItRisesAndMirrorsWhateverTheSpan(): void
    {
        foreach ([[988, 1500, 2012], [1100, 1200, 1900], [1000, 1999, 2000]] as [$low, $middle, $high]) {
            foreach ([0.0, 4.0, 60.0] as $dead) {
                $before = -1.0;
                for ($us = 900; $us <= 2100; $us += 3) {
                    $now = ChannelSpan::of($low, $middle, $high)->position($us, $dead);
                    self::assertGreaterThanOrEqual($before, $now);
                    self::assertLessThanOrEqual(1.0, $now);
                    self::assertEqualsWithDelta(-$now, ChannelSpan::of($low, $middle, $high, true)->position($us, $dead), 1e-15);
                    $before = $now;
                }
            }
        }
    }

    #[DataProvider('flat')]
    public function testWhatDoesNotRiseIsRefusedWithItsFigures(float $low, float $middle, float $high): void
    {
        $this->expectException(SpanError::class);
        $this->expectExceptionMessage("$low, $middle, $high µs");
        ChannelSpan::of($low, $middle, $high);
    }

    /** @return iterable<array{float, float, float}> */
    public static function flat(): iterable
    {
        yield 'backwards' => [2000, 1500, 1000];
        yield 'no lower half' => [1500, 1500, 2000];
        yield 'no upper half' => [1000, 2000, 2000];
        yield 'middle outside' => [1000, 2100, 2000];
    }
}
