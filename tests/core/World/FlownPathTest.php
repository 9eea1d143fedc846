<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\World;

use Ortholex\Core\World\FlownPath;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** A path is thinned for a drawing, and still ends where it ended. */
final class FlownPathTest extends TestCase
{
    #[TestWith([1, 10, 1])]
    #[TestWith([10, 10, 10])]
    #[TestWith([11, 10, 6])]
    #[TestWith([1000, 240, 201])]
    public function testItIsThinnedAndKeepsItsLastPoint(int $count, int $most, int $drawn): void
    {
        $points = [];
        for ($i = 0; $i < $count; ++$i) {
            $points[] = [$i / 10, 1.005 * $i, -$i / 3, 20.0 - $i / 100, 0.1, 'come_down'];
        }
        $path = new FlownPath($points, 1.0, 1.5, 0.9);
        $shown = $path->drawn($most);
        self::assertCount($drawn, $shown);
        self::assertSame(0.0, $shown[0][1]);
        self::assertEqualsWithDelta($points[$count - 1][1], $shown[$drawn - 1][1], 0.0051);
        self::assertSame(round(-($count - 1) / 3, 2), $shown[$drawn - 1][2]);
        self::assertSame('come_down', $shown[$drawn - 1][5]);
    }

    public function testNothingFlownIsNothingDrawn(): void
    {
        self::assertSame([], (new FlownPath([], -1.0, -1.0, 0.0))->drawn(240));
    }
}
