<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Signal;

use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Signal\Spectrum;
use Ortholex\Core\Signal\Welch;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

final class WelchTest extends TestCase
{
    /** @return list<float> 16384 samples at 2 kHz: noise, two sines, an offset */
    public static function signal(): array
    {
        $dice = new Lcg();
        $x = [];
        for ($n = 0; $n < 16384; ++$n) {
            $t = $n / 2000;
            $x[] = 20 * $dice->next() + 3 * sin(2 * \M_PI * 180.5 * $t) + 8 * sin(2 * \M_PI * 37.25 * $t) + 2.5;
        }

        return $x;
    }

    /**
     * psd-reference.json: 10·log10 of scipy.signal.welch(x, 2000, 'hann', 2048, 1024, detrend='constant'), SciPy
     * 1.10.1, of the very same signal, all 1025 bins.
     */
    public function testEveryBinAgreesWithAnIndependentReferenceToATenthOfADecibel(): void
    {
        $spectrum = Welch::withSegment(2048, 2000)->density([self::signal()]);
        $reference = json_decode((string) file_get_contents(__DIR__.'/psd-reference.json'));
        self::assertIsArray($reference);
        self::assertCount(1025, $reference);
        self::assertSame(15, $spectrum->segments);
        foreach ($spectrum->decibels() as $k => $db) {
            self::assertIsNumeric($reference[$k]);
            self::assertEqualsWithDelta((float) $reference[$k], $db, 0.1, "bin $k");
        }
    }

    public function testPowerOfASineIsHalfItsAmplitudeSquared(): void
    {
        $x = [];
        for ($n = 0; $n < 20000; ++$n) {
            $x[] = 6.0 * sin((2 * \M_PI * 140.3 * $n) / 1000);
        }
        self::assertEqualsWithDelta(
            18.0,
            Welch::withSegment(1024, 1000)
                ->density([$x])
                ->power(120, 160),
            0.05,
        );
    }

    public function testResolutionIsNeverCoarserThanAsked(): void
    {
        foreach ([500.0, 1000.0, 1600.0, 2000.0, 3200.0, 8000.0] as $rate) {
            self::assertLessThanOrEqual(2.0, $rate / Welch::withResolution(2.0, $rate)->segment);
        }
    }

    public function testNoSegmentSpansAGap(): void
    {
        // Two runs at different levels: a segment over the seam would see a step, which is broadband.
        $low = array_fill(0, 3000, -500.0);
        $high = array_fill(0, 3000, 500.0);
        $spectrum = Welch::withSegment(1024, 2000)->density([$low, $high]);
        self::assertLessThan(1e-12, max($spectrum->density));
        self::assertGreaterThan(1.0, max(Welch::withSegment(1024, 2000)->density([[...$low, ...$high]])->density));
    }

    public function testTooShortSaysHowShort(): void
    {
        $this->expectException(SignalError::class);
        $this->expectExceptionMessage('1024 samples (0.51 s)');
        Welch::withSegment(1024, 2000)->density([array_fill(0, 1000, 1.0)]);
    }

    public function testPeaksAreNamedWhereTheSinesAre(): void
    {
        $peaks = Welch::withSegment(2048, 2000)
            ->density([self::signal()])
            ->peaks(20);
        self::assertCount(2, $peaks);
        self::assertEqualsWithDelta(37.25, $peaks[0]->hz, 0.3);
        self::assertEqualsWithDelta(180.5, $peaks[1]->hz, 0.3);
        self::assertGreaterThan($peaks[1]->db, $peaks[0]->db);
        self::assertGreaterThan(6.0, $peaks[1]->prominenceDb);
    }

    public function testNoiseAloneHasNoPeaks(): void
    {
        $dice = new Lcg(99);
        $x = [];
        for ($n = 0; $n < 60000; ++$n) {
            $x[] = $dice->next();
        }
        self::assertSame(
            [],
            Welch::withSegment(1024, 2000)
                ->density([$x])
                ->peaks(20),
        );
    }

    /** On a shoulder 3 dB under it, a peak stands 3 dB high however deep the valley on its other side is. */
    public function testAPeakStandsAboveTheHigherOfItsValleys(): void
    {
        $density = [];
        for ($k = 0; $k < 200; ++$k) {
            $density[] = match (true) {
                $k < 50 => 1e-3,
                $k < 60 => 4.0,
                $k < 100 => 0.5,
                $k < 103 => 1.0,
                default => 1e-6,
            };
        }
        $spectrum = Spectrum::of(1.0, $density, 50);
        self::assertCount(1, $spectrum->peaks(10.0), 'the highest of all, and no other');
        $low = $spectrum->peaks(10.0, 2.0);
        self::assertCount(2, $low);
        self::assertEqualsWithDelta(101.0, $low[1]->hz, 1.0);
        self::assertEqualsWithDelta(3.0, $low[1]->prominenceDb, 0.8);
    }
}
