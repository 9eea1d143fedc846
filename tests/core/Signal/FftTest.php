<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Signal;

use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\RealFft;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FftTest extends TestCase
{
    /** Figures from NumPy 1.24 (numpy.fft.rfft) of the first 64 samples of the signal in WelchTest. */
    public function testAgreesWithAnIndependentReference(): void
    {
        [$re, $im] = RealFft::ofSize(64)->forward(\array_slice(WelchTest::signal(), 0, 64));
        foreach (
            [
                0 => [202.349233, 0.0],
                1 => [122.113915, -198.730853],
                7 => [-60.196386, 3.640097],
                31 => [-12.457522, -7.085516],
                32 => [26.331346, 0.0],
            ] as $k => [$r, $i]
        ) {
            self::assertEqualsWithDelta($r, $re[$k], 1e-5);
            self::assertEqualsWithDelta($i, $im[$k], 1e-5);
        }
    }

    /** @return iterable<array{int}> */
    public static function sizes(): iterable
    {
        foreach ([4, 8, 16, 32, 64, 128, 2048] as $size) {
            yield [$size];
        }
    }

    #[DataProvider('sizes')]
    public function testInverseUndoesForwardAndPowerIsKept(int $size): void
    {
        $dice = new Lcg($size);
        $re = $im = [];
        for ($i = 0; $i < $size; ++$i) {
            $re[] = $dice->next();
            $im[] = $dice->next();
        }
        $fft = Fft::ofSize($size);
        [$fr, $fi] = $fft->complex($re, $im);
        [$br, $bi] = $fft->inverse($fr, $fi);
        $power = $powerF = 0.0;
        for ($i = 0; $i < $size; ++$i) {
            self::assertEqualsWithDelta($re[$i], $br[$i], 1e-12);
            self::assertEqualsWithDelta($im[$i], $bi[$i], 1e-12);
            $power += $re[$i] ** 2 + $im[$i] ** 2;
            $powerF += ($fr[$i] ** 2 + $fi[$i] ** 2) / $size;
        }
        self::assertEqualsWithDelta($power, $powerF, 1e-9 * $power);
    }

    #[DataProvider('sizes')]
    public function testRealTransformIsTheComplexOneOfARealSignal(int $size): void
    {
        $dice = new Lcg(7 * $size);
        $x = $y = [];
        for ($i = 0; $i < $size; ++$i) {
            $x[] = $dice->next();
            $y[] = $dice->next();
        }
        [$cr, $ci] = Fft::ofSize($size)->complex($x, array_fill(0, $size, 0.0));
        [$rr, $ri] = RealFft::ofSize($size)->forward($x);
        [$xr, $xi, $yr] = Fft::ofSize($size)->twoReal($x, $y);
        [$zr] = RealFft::ofSize($size)->forward($y);
        for ($k = 0; $k <= $size / 2; ++$k) {
            self::assertEqualsWithDelta($cr[$k], $rr[$k], 1e-10);
            self::assertEqualsWithDelta($ci[$k], $ri[$k], 1e-10);
            self::assertEqualsWithDelta($cr[$k], $xr[$k], 1e-10);
            self::assertEqualsWithDelta($ci[$k], $xi[$k], 1e-10);
            self::assertEqualsWithDelta($zr[$k], $yr[$k], 1e-10);
        }
    }

    #[DataProvider('sizes')]
    public function testARealSignalComesBackFromItsTransform(int $size): void
    {
        $dice = new Lcg(13 * $size);
        $x = [];
        for ($i = 0; $i < $size; ++$i) {
            $x[] = $dice->next();
        }
        $fft = RealFft::ofSize($size);
        [$re, $im] = $fft->forward($x);
        self::assertEqualsWithDelta($x, $fft->inverse($re, $im), 1e-12);
        // As the complex transform has it of all bins.
        for ($k = $size / 2 - 1; $k > 0; --$k) {
            $re[] = $re[$k];
            $im[] = -$im[$k];
        }
        self::assertEqualsWithDelta($x, Fft::ofSize($size)->inverse($re, $im)[0], 1e-12);
    }

    /** Σ x[n]·exp(−2πi·k·n/N) as it is written, for each length whose first pass is another: of two, of four and of eight points. */
    #[DataProvider('lengths')]
    public function testIsTheSumThatDefinesIt(int $size): void
    {
        $dice = new Lcg(11 * $size);
        $re = $im = [];
        for ($n = 0; $n < $size; ++$n) {
            $re[] = $dice->next();
            $im[] = $dice->next();
        }
        [$fr, $fi] = Fft::ofSize($size)->complex($re, $im);
        self::assertCount($size, $fr);
        for ($k = 0; $k < $size; ++$k) {
            $sr = $si = 0.0;
            for ($n = 0; $n < $size; ++$n) {
                $turn = (-2 * \M_PI * $k * $n) / $size;
                $sr += $re[$n] * cos($turn) - $im[$n] * sin($turn);
                $si += $re[$n] * sin($turn) + $im[$n] * cos($turn);
            }
            self::assertEqualsWithDelta($sr, $fr[$k], 1e-12 * $size, "$k of $size");
            self::assertEqualsWithDelta($si, $fi[$k], 1e-12 * $size, "$k of $size");
        }
    }

    /** @return iterable<array{int}> */
    public static function lengths(): iterable
    {
        foreach ([2, 4, 8, 16, 32, 64, 128] as $size) {
            yield [$size];
        }
    }

    public function testOfTwoSignalsTheLowestBinsAloneAreTheSame(): void
    {
        $dice = new Lcg(5);
        $x = $y = [];
        for ($i = 0; $i < 64; ++$i) {
            $x[] = $dice->next();
            $y[] = $dice->next();
        }
        $fft = Fft::ofSize(64);
        $all = $fft->twoReal($x, $y);
        self::assertCount(33, $all[0]);
        self::assertSame(array_map(static fn (array $part): array => \array_slice($part, 0, 13), $all), $fft->twoReal($x, $y, 12));
    }

    public function testOddLengthsAreRefused(): void
    {
        $this->expectException(SignalError::class);
        $this->expectExceptionMessage('48');
        Fft::ofSize(48);
    }

    public function testSizeForIsTheNextPowerOfTwo(): void
    {
        self::assertSame([2, 2, 4, 1024, 2048], array_map(Fft::sizeFor(...), [1, 2, 3, 1024, 1025]));
    }
}
