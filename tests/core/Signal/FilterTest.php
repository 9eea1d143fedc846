<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Signal;

use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;
use Ortholex\Core\Signal\SignalError;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FilterTest extends TestCase
{
    private const HZ = [5, 30, 95, 180, 212, 400, 900];

    /**
     * Gain in dB, phase in radians, group delay in ms at 5, 30, 95, 180, 212, 400, 900 Hz, sampled at 2 kHz. From SciPy
     * 1.10.1: signal.butter(2, fc); signal.bilinear of (s² + 1)/(s² + s/5 + 1), prewarped at 212 Hz; and [α], [1, α−1];
     * each through signal.freqz and signal.group_delay.
     *
     * @return iterable<string, array{FilterStage, list<array{float, float, float}>}>
     */
    public static function references(): iterable
    {
        yield 'second order at 95' => [
            FilterStage::secondOrder(95, 2000),
            [
                [-0.0, -0.07395, 2.3582],
                [-0.0418, -0.45724, 2.5639],
                [-3.0103, -1.5708, 2.4048],
                [-11.7449, -2.35645, 0.8078],
                [-14.6265, -2.49307, 0.571],
                [-27.375, -2.84488, 0.1601],
                [-64.9281, -3.10791, 0.0545],
            ],
        ];
        yield 'second order at 350' => [
            FilterStage::secondOrder(350, 2000),
            [
                [-0.0, -0.01813, 0.5771],
                [-0.0002, -0.10905, 0.5816],
                [-0.0157, -0.35366, 0.6232],
                [-0.214, -0.71306, 0.7294],
                [-0.4199, -0.8642, 0.7733],
                [-4.7362, -1.80818, 0.7126],
                [-40.5191, -3.0039, 0.2242],
            ],
        ];
        yield 'first order at 95' => [
            FilterStage::firstOrder(95, 2000),
            [
                [-0.0156, -0.05256, 1.6684],
                [-0.5284, -0.30125, 1.4547],
                [-3.5962, -0.70919, 0.5912],
                [-7.434, -0.86774, 0.0976],
                [-8.5918, -0.87866, 0.0163],
                [-13.2522, -0.76562, -0.1589],
                [-17.6255, -0.13652, -0.2167],
            ],
        ];
        yield 'notch at 212' => [
            FilterStage::notch(212, 20, 2000),
            [
                [-0.0001, -0.00454, 0.1448],
                [-0.0034, -0.02778, 0.1531],
                [-0.0496, -0.10677, 0.2641],
                [-1.2234, -0.51838, 2.3257],
                [-200.0, \NAN, \NAN],
                [-0.0653, 0.1225, 0.1011],
                [-0.0005, 0.01099, 0.0179],
            ],
        ];
    }

    /** @param list<array{float, float, float}> $figures */
    #[DataProvider('references')]
    public function testAgreesWithAnIndependentReference(FilterStage $stage, array $figures): void
    {
        $chain = FilterChain::of(2000, $stage);
        foreach (self::HZ as $i => $hz) {
            [$db, $phase, $delay] = $figures[$i];
            if (is_nan($phase)) {
                self::assertLessThan($db, $chain->gainDb($hz), 'the notch is a zero at its centre');
                continue;
            }
            self::assertEqualsWithDelta($db, $chain->gainDb($hz), 0.01, "gain at $hz Hz");
            self::assertEqualsWithDelta(-$phase / (2 * \M_PI * $hz), $chain->phaseDelay($hz), 2e-6, "phase delay at $hz Hz");
            self::assertEqualsWithDelta($delay, 1e3 * $chain->groupDelay($hz), 0.002, "group delay at $hz Hz");
        }
    }

    public function testAChainIsTheProductOfItsStagesAndItsDelaysAdd(): void
    {
        $a = FilterStage::secondOrder(180, 2000);
        $b = FilterStage::notch(215, 25, 2000);
        $both = FilterChain::of(2000, $a)->then($b);
        foreach (self::HZ as $hz) {
            self::assertEqualsWithDelta(
                FilterChain::of(2000, $a)->gainDb($hz) + FilterChain::of(2000, $b)->gainDb($hz),
                $both->gainDb($hz),
                1e-9,
            );
            self::assertEqualsWithDelta(
                FilterChain::of(2000, $a)->phaseDelay($hz) + FilterChain::of(2000, $b)->phaseDelay($hz),
                $both->phaseDelay($hz),
                1e-12,
            );
        }
        self::assertSame(0.0, FilterChain::of(2000)->phaseDelay(100));
    }

    public function testASineComesOutAsTheResponseSays(): void
    {
        $chain = FilterChain::of(
            2000,
            FilterStage::secondOrder(120, 2000),
            FilterStage::firstOrder(300, 2000),
            FilterStage::notch(90, 100 / 3, 2000),
        );
        $x = [];
        for ($n = 0; $n < 8000; ++$n) {
            $x[] = sin((2 * \M_PI * 55 * $n) / 2000);
        }
        $y = \array_slice($chain->run($x), 4000);
        [$re, $im] = $chain->response(55);
        foreach ($y as $n => $v) {
            $angle = (2 * \M_PI * 55 * ($n + 4000)) / 2000;
            self::assertEqualsWithDelta($re * sin($angle) + $im * cos($angle), $v, 1e-6);
        }
    }

    public function testStartsAtRestOnItsFirstValue(): void
    {
        $y = FilterChain::of(2000, FilterStage::secondOrder(50, 2000), FilterStage::notch(200, 20, 2000))->run(array_fill(0, 200, 7.0));
        self::assertEqualsWithDelta(7.0, min($y), 1e-9);
        self::assertEqualsWithDelta(7.0, max($y), 1e-9);
        self::assertSame([], FilterChain::of(2000, FilterStage::firstOrder(50, 2000))->run([]));
    }

    public function testImpossibleCutoffsAreRefusedWithTheirFigures(): void
    {
        foreach ([0.0, -5.0, 1000.0, 1500.0] as $hz) {
            try {
                FilterStage::secondOrder($hz, 2000);
                self::fail("A cutoff of $hz Hz was taken.");
            } catch (SignalError $e) {
                self::assertStringContainsString((string) $hz, $e->getMessage());
            }
        }
        $this->expectException(SignalError::class);
        FilterStage::notch(100, 0, 2000);
    }

    /**
     * A notch turns the phase by a quarter to either side of its centre and never by more. Right above the centre rounding takes
     * the angle a hair past a quarter, which must not be taken for a low-pass' half turn.
     */
    public function testTheDelayOfANotchStaysWithinAQuarterPeriodAtItsVeryCentre(): void
    {
        foreach ([[187.0, 5.0, 2000.0], [211.3, 3.0, 1000.0], [80.0, 8.0, 4000.0], [400.0, 5.0, 2000.0]] as [$centre, $q, $rate]) {
            $chain = FilterChain::of($rate)->then(FilterStage::notch($centre, 100 / $q, $rate));
            foreach ([-1e-6, -1e-12, 1e-12, 1e-9, 1e-6] as $off) {
                $hz = $centre * (1 + $off);
                self::assertEqualsWithDelta($off < 0 ? 0.25 : -0.25, $chain->phaseDelay($hz) * $hz, 0.001, "$centre Hz, off by $off");
            }
        }
    }
}
