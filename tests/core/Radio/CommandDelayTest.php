<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Radio;

use Ortholex\Core\Radio\Delay\CommandDelay;
use Ortholex\Core\Radio\Delay\CommandLowPass;
use Ortholex\Core\Radio\Protocol\Protocol;
use PHPUnit\Framework\TestCase;

/** How late a stick acts, and what the command low-pass trades. */
final class CommandDelayTest extends TestCase
{
    public function testTheSumIsThatOfItsParts(): void
    {
        $delay = CommandDelay::of(Protocol::Crsf, 6.667, 40.0, 2000.0);
        // Half a frame; 26 bytes of 10 bits at 420 000 a second; half of 0.5 ms.
        self::assertEqualsWithDelta(3.333, $delay->frameMs, 0.001);
        self::assertEqualsWithDelta(0.619, $delay->wireMs, 0.001);
        self::assertEqualsWithDelta(0.25, $delay->loopMs, 1e-9);
        // Group delay of H(s) = 1/(s² + √2 s + 1), s = jx, x = 10/40: √2 (1 + x²)/(1 + x⁴)/ω₀.
        self::assertEqualsWithDelta((1000 * sqrt(2) * (1 + 0.0625)) / (1 + 0.00390625) / (2 * \M_PI * 40), $delay->filterMs, 0.01);
        self::assertEqualsWithDelta($delay->frameMs + $delay->wireMs + $delay->filterMs + $delay->loopMs, $delay->sumMs(), 1e-12);
        // 25 bytes of 12 bits at 100 000 a second.
        self::assertEqualsWithDelta(3.0, CommandDelay::of(Protocol::Sbus, 9.0, 40.0, 2000.0)->wireMs, 1e-9);
    }

    public function testALowerCutoffIsLaterAndQuieterAndTheKneeLiesBetween(): void
    {
        foreach ([50.0, 111.0, 150.0] as $hz) {
            $trade = CommandLowPass::trade(CommandLowPass::standardMove($hz), $hz);
            self::assertEqualsWithDelta(5.0, $trade->curve[0]['hz'], 1e-9);
            self::assertEqualsWithDelta(250.0, $trade->curve[39]['hz'], 1e-9);
            for ($i = 1; $i < 40; ++$i) {
                if ($trade->curve[$i - 1]['hz'] > 10) {
                    self::assertLessThan($trade->curve[$i - 1]['delay_ms'], $trade->curve[$i]['delay_ms']);
                }
                self::assertGreaterThan($trade->curve[$i - 1]['residue_pct'], $trade->curve[$i]['residue_pct']);
            }
            self::assertGreaterThan(8.0, $trade->knee());
            self::assertLessThan(150.0, $trade->knee());
        }
    }

    /** A ramp told in frames is a staircase of even steps: left of it is a saw of one step, whose RMS is step/√12. */
    public function testWithoutAFilterTheStepsOfARampAreAllLeft(): void
    {
        $frames = array_map(static fn (int $i): float => 0.01 * $i, range(0, 99));
        // At 250 Hz most of the saw of 50 Hz is left: its first harmonics pass.
        self::assertEqualsWithDelta(100 * 0.01 / sqrt(12), CommandLowPass::at(250.0, $frames, 50.0)['residue_pct'], 0.04);
        self::assertLessThan(0.02, CommandLowPass::at(8.0, $frames, 50.0)['residue_pct']);
    }
}
