<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Noise;

use Ortholex\Core\Noise\FilterDelay;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The delay of a filter whose phase is known in closed form: a first-order low-pass at fc comes 1/(2π fc) late at low frequencies. */
final class FilterDelayTest extends TestCase
{
    #[DataProvider('filters')]
    public function testItIsTheDelayOfTheFilterWhateverShakes(float $rateHz, float $cutoffHz, float $shakes): void
    {
        $seen = [];
        foreach ([1, 2, 3] as $seed) {
            $g = new KnownFlight($seed);
            $a = 1 - exp((-2 * \M_PI * $cutoffHz) / $rateHz);
            $move = 1 - exp((-2 * \M_PI * 6) / $rateHz);
            $measured = $filtered = [];
            $x = $y = $slow = 0.0;
            for ($i = 0, $n = (int) (30 * $rateHz); $i < $n; ++$i) {
                $x += $move * (900 * $g->gauss() * sqrt($rateHz / 1000) - $x);
                $y += $move * ($x - $y);
                $raw = $y + $shakes * sin(($i / $rateHz) * 2 * \M_PI * 180) + 0.3 * $shakes * $g->gauss();
                // The mean of what it was and is: half a sample less late than the plain recursion.
                $slow += $a * ($raw - $slow);
                $measured[] = $raw;
                $filtered[] = $slow;
            }
            $seen[] = 1e3 * (FilterDelay::between($measured, $filtered, $rateHz) ?? 99);
        }
        // Of the recursion itself: group delay at zero is (1 − a)/a samples.
        $a = 1 - exp((-2 * \M_PI * $cutoffHz) / $rateHz);
        $expected = (1e3 * (1 - $a)) / $a / $rateHz;
        foreach ($seen as $ms) {
            self::assertEqualsWithDelta($expected, $ms, 0.06 * $expected + 0.05);
        }
    }

    /** @return iterable<string, array{float, float, float}> */
    public static function filters(): iterable
    {
        yield '100 Hz at 1 kHz' => [1000, 100, 2];
        yield '100 Hz at 1 kHz, shaking hard' => [1000, 100, 25];
        yield '250 Hz at 2 kHz' => [2000, 250, 10];
    }

    public function testTwoThatHaveNothingInCommonHaveNone(): void
    {
        $g = new KnownFlight(5);
        $noise = static fn (): array => array_map(static fn (): float => $g->gauss(), range(1, 9000));
        self::assertNull(FilterDelay::between($noise(), $noise(), 1000));
        self::assertNull(FilterDelay::between([1.0], [1.0], 1000));
    }
}
