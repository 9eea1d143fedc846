<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Report;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\LogCheck\AdequacyCode;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** Stamps from a year apart to a picosecond: whatever they say, memory stays bounded, and what cannot be told is said. */
final class AbsurdRateTest extends TestCase
{
    #[TestWith([1.0])]
    #[TestWith([10.0])]
    #[TestWith([1e6])]
    #[TestWith([0.03])]
    public function testSampledFarTooSlowlyTellsNothingAndSaysSo(float $step): void
    {
        $before = memory_get_peak_usage();
        $analysis = FlightAnalysis::of(KnownFlight::read(self::csv($step)), true);
        self::assertNull($analysis->axes['roll']->step);
        self::assertTrue($analysis->axes['roll']->confidence->reasons[0]->is(ConfidenceReason::FarTooSlow));
        self::assertSame([AdequacyCode::FarTooSlow], array_map(static fn (Fact $f): mixed => $f->code, $analysis->adequacy->cannot));
        self::assertLessThan(40e6, memory_get_peak_usage() - $before);
    }

    #[TestWith([1e-6])]
    #[TestWith([1e-9])]
    #[TestWith([1e-12])]
    public function testFasterThanAnyRecorderIsRefusedInWords(float $step): void
    {
        $this->expectException(LogError::class);
        $this->expectExceptionMessage('another unit');
        KnownFlight::read(self::csv($step));
    }

    private static function csv(float $step): string
    {
        $rows = ['time_s,setpoint_roll_dps,rate_measured_roll_dps,output_1_pct,throttle_pct'];
        for ($i = 0; $i < 20000; ++$i) {
            $rows[] = \sprintf('%.14G,%.2F,%.2F,40,40', $i * $step, 100 * sin($i / 50), 100 * sin(($i - 10) / 50));
        }

        return implode("\n", $rows)."\n";
    }
}
