<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\LogCheck;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\LogCheck\Adequacy;
use Ortholex\Core\LogCheck\AdequacyCode;
use Ortholex\Tests\core\Report\KnownFlight;
use PHPUnit\Framework\TestCase;

/** What a log can be used for, and where each use begins. */
final class AdequacyTest extends TestCase
{
    public function testTwelveSecondsOfMovementGiveAStepResponse(): void
    {
        $short = self::of(11.9);
        self::assertFalse($short->allows(AdequacyCode::StepResponse));
        self::assertContainsEquals(Fact::of(AdequacyCode::TooShort, least_s: 12.0), $short->cannot);
        self::assertTrue(self::of(12.1)->allows(AdequacyCode::StepResponse));
        self::assertTrue($short->allows(AdequacyCode::Lag), 'lag asks for less');
    }

    public function testAnAxisCountsAsMovedFrom40DegPerSecond(): void
    {
        $still = self::of(20.0, swing: 55.0);
        self::assertFalse($still->allows(AdequacyCode::StepResponse), '55/√2 is 38.9 deg/s RMS');
        self::assertContainsEquals(Fact::of(AdequacyCode::SticksStill), $still->cannot);
        $moved = self::of(20.0, swing: 58.0);
        self::assertContainsEquals(Fact::of(AdequacyCode::StepResponse, axes: ['roll']), $moved->can, '58/√2 is 41.0');
    }

    /** What was not logged is not told as sticks that stood still. */
    public function testWithoutSetpointItIsSaidThatItWasNotLogged(): void
    {
        $rate = array_map(static fn (int $i): float => 150 * sin($i / 80), range(0, 19999));
        $without = Adequacy::of(KnownFlight::of(['rate_measured_roll_dps' => $rate], 1000));
        self::assertContainsEquals(Fact::of(AdequacyCode::NoSetpoint), $without->cannot);
        self::assertNotContainsEquals(Fact::of(AdequacyCode::SticksStill), $without->cannot);
    }

    public function testNoiseWantsFiveLevelsOfThrottle(): void
    {
        self::assertTrue(self::of(20.0, reach: 55.0)->allows(AdequacyCode::NoiseAgainstThrottle));
        $few = self::of(20.0, reach: 39.0);
        self::assertContainsEquals(Fact::of(AdequacyCode::FewThrottleLevels, pct: 40), $few->cannot);
        self::assertContainsEquals(
            Fact::of(AdequacyCode::SampledSlowly, from_hz: 250.0, rate_hz: 500.0),
            self::of(20.0, rate: 500)->cannot,
        );
        self::assertNotContainsEquals(Fact::of(AdequacyCode::SampledSlowly, from_hz: 500.0, rate_hz: 1000.0), self::of(20.0)->cannot);
    }

    /**
     * @param float $swing amplitude of the setpoint of roll, deg/s
     * @param float $reach throttle goes from 0 to here, %
     */
    private static function of(float $seconds, float $swing = 150.0, float $reach = 80.0, int $rate = 1000): Adequacy
    {
        $traces = [];
        for ($i = 0, $n = (int) ($seconds * $rate); $i < $n; ++$i) {
            $traces['setpoint_roll_dps'][] = $swing * sin((2 * \M_PI * 2 * $i) / $rate);
            $traces['rate_measured_roll_dps'][] = $swing * sin((2 * \M_PI * 2 * $i) / $rate - 0.1);
            $traces['throttle_pct'][] = ($reach * $i) / $n;
        }

        return Adequacy::of(KnownFlight::of($traces, $rate));
    }
}
