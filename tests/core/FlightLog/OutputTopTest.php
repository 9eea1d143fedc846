<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\FlightLog\OutputTop;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Where outputs are cut off they pile up; a peak that is only passed by is no end. */
final class OutputTopTest extends TestCase
{
    /** @return iterable<string, array{float, float, float}> swings to, is cut off at, and the end that the log tells, % */
    public static function swings(): iterable
    {
        yield 'cut off at 100' => [130.0, 100.0, 100.0];
        yield 'cut off at 96' => [130.0, 96.0, 96.0];
        yield 'cut off a little' => [115.0, 96.0, 96.0];
        yield 'touched, which may be chance' => [96.5, 96.0, 100.0];
        yield 'cut off at 80' => [100.0, 80.0, 80.0];
        yield 'passes 96 by' => [96.0, 100.0, 100.0];
        yield 'never comes near' => [60.0, 55.0, 100.0];
    }

    #[DataProvider('swings')]
    public function testTheEndIsWhereOutputsPileUp(float $to, float $cut, float $told): void
    {
        foreach ([0.0, 0.1, 1.0] as $step) {
            $outputs = [];
            foreach ([0.0, 0.7, 2.1, 3.3] as $phase) {
                $one = [];
                for ($i = 0; $i < 8000; ++$i) {
                    $v = min($cut, 40 + ($to - 40) * sin($i / 37 + $phase) * (0.6 + 0.4 * sin($i / 900)));
                    $one[] = $step > 0 ? round($v / $step) * $step : $v;
                }
                $outputs[] = $one;
            }
            self::assertEqualsWithDelta($told, OutputTop::of($outputs), 1e-9, "in steps of $step %");
        }
    }

    public function testAMomentAtTheTopTellsNothingYet(): void
    {
        self::assertSame(100.0, OutputTop::of([]));
        self::assertSame(100.0, OutputTop::of([[]]));
        self::assertSame(100.0, OutputTop::of([[50.0, 90.0, 90.0, 90.0, 50.0]]));
        self::assertSame(90.0, OutputTop::of([[50.0, ...array_fill(0, 20, 90.0), 50.0]]));
    }
}
