<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Lag;

use Ortholex\Core\Lag\Lag;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

final class LagTest extends TestCase
{
    public function testDelaysOfAFractionOfASampleAreFound(): void
    {
        foreach ([-7.0, -1.3, 0.0, 0.4, 2.0, 11.7] as $samples) {
            $x = $y = [];
            $phases = [];
            $dice = new Lcg(4);
            for ($k = 1; $k < 60; ++$k) {
                $phases[$k] = 6.28 * $dice->next();
            }
            for ($i = 0; $i < 4000; ++$i) {
                $a = $b = 0.0;
                foreach ($phases as $k => $p) {
                    $a += sin(0.004 * $k * $i + $p);
                    $b += sin(0.004 * $k * ($i - $samples) + $p);
                }
                $x[] = $a;
                $y[] = $b;
            }
            $lag = Lag::between($x, $y, 1000);
            self::assertNotNull($lag);
            self::assertEqualsWithDelta($samples / 1000, $lag, 0.0002);
        }
    }

    public function testConstantsHaveNoLag(): void
    {
        self::assertNull(Lag::between(array_fill(0, 500, 2.0), array_fill(0, 500, 3.0), 1000));
        self::assertNull(Lag::between([1.0], [1.0], 1000));
    }
}
