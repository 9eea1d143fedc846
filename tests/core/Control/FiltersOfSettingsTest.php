<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Control;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\FeelError;
use Ortholex\Core\Control\LowPass;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Which filters settings stand for, and that the order of stages is none of the result's. */
final class FiltersOfSettingsTest extends TestCase
{
    /** @return iterable<string, array{string, float}> kind, dB an octave far above the cutoff */
    public static function kinds(): iterable
    {
        yield 'first order' => ['first_order', -6.02];
        yield 'second order' => ['second_order', -12.04];
    }

    #[DataProvider('kinds')]
    public function testEachKindFallsAsItsOrderSays(string $kind, float $octave): void
    {
        foreach (RateFilters::PATHS as $path) {
            foreach (RateFilters::STAGES as $stage) {
                $set = self::none()->with(["$path.stage.$stage.kind" => $kind, "$path.stage.$stage.cutoff_hz" => 60.0]);
                $filters = RateFilters::of($set, 8000);
                [$it, $other] = 'rate_path' === $path ? [$filters->ratePath, $filters->dPath] : [$filters->dPath, $filters->ratePath];
                self::assertCount(1, $it->stages);
                self::assertCount(0, $other->stages, 'the other path has nothing of it');
                self::assertEqualsWithDelta(-3.01, $it->gainDb(60.0), 0.12, 'half the power at its cutoff');
                self::assertEqualsWithDelta(0.0, $it->gainDb(1.0), 0.02);
                self::assertEqualsWithDelta($octave, $it->gainDb(960.0) - $it->gainDb(480.0), 0.8);
            }
        }
    }

    public function testTheOrderOfStagesIsNoneOfTheResult(): void
    {
        $dice = new Lcg(70);
        for ($round = 0; $round < 60; ++$round) {
            $stages = [];
            foreach (range(1, 4) as $n) {
                $stages[] = [['off', 'first_order', 'second_order'][$dice->whole(0, 2)], (float) $dice->whole(40, 400)];
            }
            $one = self::staged($stages);
            $turned = self::staged(array_reverse($stages));
            foreach ([5.0, 30.0, 120.0, 500.0] as $hz) {
                self::assertEqualsWithDelta($one->gainDb($hz), $turned->gainDb($hz), 1e-9);
                self::assertEqualsWithDelta($one->groupDelay($hz), $turned->groupDelay($hz), 1e-9);
                $alone = 0.0;
                foreach ($stages as $stage) {
                    $alone += self::staged([$stage])->gainDb($hz);
                }
                self::assertEqualsWithDelta($alone, $one->gainDb($hz), 1e-6, 'decibels of stages add');
            }
        }
    }

    public function testMoreFilteringNeverDelaysLess(): void
    {
        foreach ([250.0, 160.0, 100.0, 60.0] as $cutoff) {
            $first = self::staged([['first_order', $cutoff]]);
            $second = self::staged([['second_order', $cutoff]]);
            self::assertGreaterThan($first->groupDelay(10.0), $second->groupDelay(10.0));
            // Far below its cutoff a first-order filter delays by one over its angular frequency.
            self::assertEqualsWithDelta(1 / (2 * \M_PI * $cutoff), $first->groupDelay(1.0), 3e-5);
        }
        $before = 0.0;
        foreach ([300.0, 200.0, 120.0, 80.0, 50.0] as $cutoff) {
            $delay = self::staged([['second_order', $cutoff]])->groupDelay(10.0);
            self::assertGreaterThan($before, $delay, 'the lower the cutoff, the later');
            $before = $delay;
        }
    }

    public function testNotchesNeedSpeedsAndStandWhereTheseSay(): void
    {
        $set = self::none()->with(['notch.motor.orders' => '1,2', 'motors.rpm_feedback' => true]);
        self::assertSame([1, 2], RateFilters::orders($set));
        self::assertCount(0, RateFilters::of($set, 4000)->ratePath->stages, 'no speeds are known');
        $chain = RateFilters::of($set, 4000, [180.0, 210.0])->ratePath;
        self::assertCount(4, $chain->stages);
        foreach ([180.0, 210.0, 360.0, 420.0] as $hz) {
            self::assertLessThan(-40.0, $chain->gainDb($hz), (string) $hz);
        }
        self::assertGreaterThan(-3.0, $chain->gainDb(30.0), 'and far from these little is lost');
        self::assertSame([], RateFilters::orders($set->with(['motors.rpm_feedback' => false])));
        self::assertSame([], RateFilters::orders($set->with(['notch.motor.orders' => ''])));
    }

    public function testAboveWhatALoopCanHoldNothingIsFiltered(): void
    {
        $set = self::none()->with(['notch.motor.orders' => '1', 'motors.rpm_feedback' => true]);
        self::assertCount(0, RateFilters::of($set, 1000, [490.0])->ratePath->stages);
        self::assertCount(1, RateFilters::of($set, 1000, [470.0])->ratePath->stages);
        $low = self::none()->with(['rate_path.stage.1.kind' => 'second_order', 'rate_path.stage.1.cutoff_hz' => 900.0]);
        self::assertCount(1, RateFilters::of($low, 1000)->ratePath->stages, 'a cutoff is brought down to what the loop can hold');
        foreach (LowPass::cases() as $kind) {
            $of = LowPass::of($low->with(['rate_path.stage.1.kind' => $kind->value]), 'rate_path', 1);
            self::assertSame($kind, $of);
        }
    }

    public function testAFilteredConstantIsThatConstant(): void
    {
        $dice = new Lcg(71);
        for ($round = 0; $round < 30; ++$round) {
            $chain = FilterChain::of(2000)
                ->then(FilterStage::firstOrder($dice->whole(30, 300), 2000))
                ->then(FilterStage::secondOrder($dice->whole(30, 300), 2000));
            $level = 100 * $dice->next();
            foreach ($chain->run(array_fill(0, 400, $level)) as $v) {
                self::assertEqualsWithDelta($level, $v, 1e-6);
            }
        }
    }

    public function testAFeelOfAnyThreeRatesThatCanBeIsMetAndAnyOtherRefused(): void
    {
        $dice = new Lcg(72);
        $refused = 0;
        for ($round = 0; $round < 400; ++$round) {
            [$quarter, $half, $full] = [(float) $dice->whole(20, 500), (float) $dice->whole(20, 700), (float) $dice->whole(60, 1400)];
            $can = $quarter > 0 && $half > $quarter && $full > $half;
            try {
                $feel = Feel::of($quarter, $half, $full);
                self::assertTrue($can);
                self::assertEqualsWithDelta($quarter, $feel->rate(0.25), 1e-6);
                self::assertEqualsWithDelta($half, $feel->rate(0.5), 1e-6);
                self::assertEqualsWithDelta($full, $feel->rate(1.0), 1e-6);
            } catch (FeelError $e) {
                ++$refused;
                self::assertFalse($can, "$quarter, $half, $full");
                self::assertSame([$quarter, $half, $full], [$e->quarter, $e->half, $e->full]);
            }
        }
        self::assertGreaterThan(20, $refused);
        self::assertLessThan(380, $refused);
    }

    /** No filter in either path. */
    private static function none(): SettingSet
    {
        $set = Catalogue::loam()->defaults(Version::parse('26.06'));
        foreach (RateFilters::PATHS as $path) {
            foreach (RateFilters::STAGES as $n) {
                $set = $set->with(["$path.stage.$n.kind" => LowPass::Off->value]);
            }
        }

        return $set;
    }

    /** @param list<array{string, float}> $stages kind and cutoff */
    private static function staged(array $stages): FilterChain
    {
        $set = self::none();
        foreach ($stages as $i => [$kind, $hz]) {
            $n = $i + 1;
            $set = $set->with(["rate_path.stage.$n.kind" => $kind, "rate_path.stage.$n.cutoff_hz" => $hz]);
        }

        return RateFilters::of($set, 4000)->ratePath;
    }
}
