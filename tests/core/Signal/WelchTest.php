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

    /** Each segment's |X_k|² from its sum over the samples, the plain way, where segments are few, odd in number, and in several runs. */
    public function testFewSegmentsAreTheMeanOfTheirOwnTransforms(): void
    {
        $dice = new Lcg(8);
        $run = static function (int $samples) use ($dice): array {
            $x = [];
            for ($n = 0; $n < $samples; ++$n) {
                $x[] = 5 * $dice->normal() + 2.0;
            }

            return $x;
        };
        foreach ([[32], [48], [64, 40], [31, 32, 90]] as $lengths) {
            $runs = array_map($run, $lengths);
            $sum = array_fill(0, 17, 0.0);
            $segments = 0;
            foreach ($runs as $x) {
                for ($at = 0; $at + 32 <= \count($x); $at += 16) {
                    $part = \array_slice($x, $at, 32);
                    $mean = array_sum($part) / 32;
                    ++$segments;
                    foreach (array_keys($sum) as $k) {
                        $re = $im = 0.0;
                        foreach ($part as $n => $v) {
                            $w = ($v - $mean) * (0.5 - 0.5 * cos((2 * \M_PI * $n) / 32));
                            $re += $w * cos((2 * \M_PI * $k * $n) / 32);
                            $im -= $w * sin((2 * \M_PI * $k * $n) / 32);
                        }
                        $sum[$k] += $re ** 2 + $im ** 2;
                    }
                }
            }
            $spectrum = Welch::withSegment(32, 400.0)->density($runs);
            self::assertSame($segments, $spectrum->segments);
            foreach ($spectrum->density as $k => $v) {
                // The window's own power is 32·3/8; one side holds both but at the ends.
                $wanted = ($sum[$k] / (400.0 * 12.0 * $segments)) * (0 === $k || 16 === $k ? 1 : 2);
                self::assertEqualsWithDelta($wanted, $v, 1e-9 * max(1.0, $wanted), "bin $k of ".implode(', ', $lengths));
            }
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
