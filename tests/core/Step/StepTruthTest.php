<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Step;

use Ortholex\Core\Step\StepAnalysis;
use Ortholex\Core\Step\StepCurve;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Numbers and their intervals against loops in closed form, in air that gusts. More seeds and rates: `bin/bench truth`. */
#[Group('slow')]
final class StepTruthTest extends TestCase
{
    private const SEEDS = 8;

    #[DataProvider('loops')]
    public function testNumbersAreUnbiasedAndIntervalsHoldThem(float $natural, float $damping, float $deadS, float $rateHz): void
    {
        $loop = new KnownLoop($natural, $damping, $deadS);
        $truth = self::truth($loop);
        $off = [];
        $held = $asked = 0;
        for ($seed = 1; $seed <= self::SEEDS; ++$seed) {
            [$x, $y] = self::gusty($loop, $rateHz, $seed);
            $result = StepAnalysis::of([$x], [$y], $rateHz);
            foreach ($truth as $name => $value) {
                $off[$name][] = ($result->numbers->toArray()[$name] ?? 0) - $value;
                [$low, $high] = $result->intervals[$name] ?? [0, 0];
                $held += $value >= $low && $value <= $high ? 1 : 0;
                ++$asked;
            }
        }
        $bias = static fn (string $name): float => array_sum($off[$name] ?? [9]) / self::SEEDS;
        self::assertEqualsWithDelta(0, $bias('delay_ms'), 0.5);
        self::assertEqualsWithDelta(0, $bias('rise_ms'), 1.6);
        self::assertEqualsWithDelta(0, $bias('peak'), 0.012);
        self::assertEqualsWithDelta(0, $bias('steady'), 0.012);
        // Nominal 90 %; of 32 intervals that hold it by that chance, fewer than 24 do once in four hundred.
        self::assertGreaterThanOrEqual(0.74, $held / $asked);
    }

    /** @return iterable<string, array{float, float, float, float}> */
    public static function loops(): iterable
    {
        yield 'firm' => [60, 0.7, 0.008, 1000];
        yield 'soft' => [20, 0.9, 0.01, 500];
        yield 'overdamped' => [45, 1.6, 0.008, 1000];
        yield 'ringing' => [70, 0.25, 0.006, 2000];
    }

    /** @return array<string, float> */
    private static function truth(KnownLoop $loop): array
    {
        $values = array_map(static fn (int $i): float => $loop->step($i / 1000), range(0, 500));
        $numbers = (new StepCurve(0.001, $values))->numbers();

        return [
            'delay_ms' => (float) $numbers->delayMs,
            'rise_ms' => (float) $numbers->riseMs,
            'peak' => $numbers->peak,
            'steady' => $numbers->steady,
        ];
    }

    /** @return array{list<float>, list<float>} stick and rate, with gusts of a third of a second */
    private static function gusty(KnownLoop $loop, float $rateHz, int $seed): array
    {
        [$x, $y] = $loop->fly($rateHz, 40, 20, $seed);
        $dice = new Lcg($seed + 999);
        $gust = 0.0;
        $step = 1 / $rateHz / 0.3;
        foreach ($y as $i => $v) {
            $gust += -$gust * $step + sqrt(2 * $step) * 6 * $dice->normal();
            $y[$i] = $v + $gust;
        }

        return [$x, $y];
    }
}
