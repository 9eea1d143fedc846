<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Location;

use Ortholex\App\Location\Home\ReturnPath;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** Who lies broken at home has not come home. */
final class ReturnPathTest extends TestCase
{
    #[TestWith([1.2, 2.0, true, false])]
    #[TestWith([17.3, 2.0, false, true])]
    #[TestWith([1.2, 6.0, false, false])]
    public function testHomeIsNearAndWhole(float $impact, float $north, bool $home, bool $fell): void
    {
        $path = ReturnPath::of([
            'points' => [[0, 100, 0, 20, 0, 'heard'], [60, $north, 0, 0.1, 0, 'come_down']],
            'impact' => $impact,
        ]);
        self::assertNotNull($path);
        self::assertSame($home, $path->cameHome());
        self::assertSame($fell, $path->fell());
    }
}
