<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Filters;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\Candidate;
use Ortholex\Core\Filters\ClosedLoop;
use Ortholex\Core\Filters\Scores;
use Ortholex\Core\Filters\TradeOff;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\Filters\WhatIfDoubt;
use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;
use Ortholex\Core\Together\OneByOne;
use Ortholex\Core\Tuning\AxisPlant;
use PHPUnit\Framework\TestCase;

final class WhatIfTest extends TestCase
{
    private const CHAIN = [
        'rate_path.stage.1.kind' => 'second_order',
        'rate_path.stage.1.cutoff_hz' => 120.0,
        'motors.rpm_feedback' => true,
    ];

    /** White noise of deviation σ has the density 2σ²/fs; behind a chain, its power is the integral of that times |H|². */
    public function testWhiteNoiseBehindALowPassIsTheIntegralOfItsGain(): void
    {
        $log = KnownShake::log(2000, 60, [], 5.0, 0.0, 'motors.loop_rate_hz: 8000');
        $axis = WhatIf::of($log, SettingSet::of(self::CHAIN))->axes['roll'];
        $stage = FilterStage::secondOrder(120.0, 8000.0);
        $power = 0.0;
        for ($hz = 20.5; $hz < 1000; ++$hz) {
            [$re, $im] = $stage->response($hz, 8000.0);
            $power += ((2 * 5.0 ** 2) / 2000) * ($re * $re + $im * $im);
        }
        self::assertEqualsWithDelta(1.0, $axis->residualDps / sqrt($power), 0.03);
        self::assertEqualsWithDelta(sqrt(0.98) * 5.0, $axis->measuredDps, 0.1);
        self::assertEqualsWithDelta(1e3 * FilterChain::of(8000.0, $stage)->phaseDelay(30.0), $axis->delayMs, 1e-9);
        self::assertSame($axis->delayMs, $axis->dDelayMs, 'no D path');
    }

    /** At the loop's own rate the filters can be run sample by sample: the same figure by another way. */
    public function testIsWhatTheFiltersGiveSampleBySample(): void
    {
        $log = KnownShake::log(2000, 30, [170.0, 190.0], 2.0, 12.0);
        $set = SettingSet::of(self::CHAIN + ['d_path.stage.1.kind' => 'first_order', 'd_path.stage.1.cutoff_hz' => 90.0]);
        $axis = WhatIf::of($log, $set)->axes['roll'];
        $run = RateFilters::of($set, 2000.0)->ratePath->run($log->trace('rate_measured_roll_dps'));
        self::assertEqualsWithDelta(1.0, $axis->residualDps / AxisSpectrum::of([$run], 2000.0)->rmsDps, 0.01);
        self::assertEqualsWithDelta(
            1e3 * RateFilters::of($set, 2000.0)->dPath->phaseDelay(30.0),
            $axis->dDelayMs - $axis->delayMs,
            1e-9,
        );
        // Lines of 12 and 6 deg/s at two rotors; notches at both orders leave little more than the noise.
        $notched = WhatIf::of($log, $set->with(['notch.motor.orders' => '1,2']))->axes['roll'];
        self::assertLessThan(0.25 * $axis->residualDps, $notched->residualDps);
        self::assertGreaterThan($axis->delayMs + 0.5, $notched->delayMs, 'and they cost delay');
    }

    /** D of white noise: σ² times the integral of |kd·fs·(1 − e^(−iω))|²; and where no gains are known nothing is said of it. */
    public function testNoiseOfDIsTheIntegralOfItsGain(): void
    {
        $log = KnownShake::log(2000, 60, [], 1.0, 0.0);
        $set = SettingSet::of(['gain.roll.p' => 30.0, 'gain.roll.d' => 2.0]);
        $noise = WhatIf::of($log, $set)->axes['roll']->noise;
        self::assertNotNull($noise);
        $d = $motors = 0.0;
        for ($hz = 20.5; $hz < 1000; ++$hz) {
            $w = (2 * \M_PI * $hz) / 2000;
            $gain = (0.002 * 2000) ** 2 * (2 - 2 * cos($w));
            $d += (2 / 2000) * $gain;
            $motors += $hz < 80 ? 0.0 : (2 / 2000) * ((0.3 + 4 * (1 - cos($w))) ** 2 + (4 * sin($w)) ** 2);
        }
        self::assertEqualsWithDelta(1.0, $noise->dPct / sqrt($d), 0.02);
        self::assertEqualsWithDelta(1.0, $noise->motorsPct / sqrt($motors), 0.02);
        self::assertNull(WhatIf::of($log, SettingSet::none())->axes['roll']->noise);
    }

    public function testWhatALogCannotTellIsSaid(): void
    {
        $log = KnownShake::log(1000, 8, [], 1.0, 0.0, 'motors.loop_rate_hz: 4000');
        $with = WhatIf::of($log, SettingSet::of(['notch.motor.orders' => '1', 'motors.rpm_feedback' => true]));
        $codes = array_column(array_map(static fn ($f): array => ['code' => $f->code], $with->doubts), 'code');
        self::assertSame(
            [WhatIfDoubt::OpenLoop, WhatIfDoubt::NoMeasuredRate, WhatIfDoubt::NoMeasuredRate, WhatIfDoubt::SlowLog, WhatIfDoubt::NoSpeeds],
            $codes,
        );
        self::assertSame(['roll'], array_keys($with->axes));
        $short = WhatIf::of(KnownShake::log(1000, 0.3, [], 1.0, 0.0), SettingSet::none());
        self::assertSame([], $short->axes);
        self::assertSame(WhatIfDoubt::TooShort, $short->doubts[\count($short->doubts) - 1]->code);
        self::assertSame([], TradeOff::of(KnownShake::log(1000, 0.3, [], 1.0, 0.0), SettingSet::none())->front);
    }

    /** Each chain run by itself, and every pair compared: the curve is what is left. */
    public function testTheCurveIsWhatBruteForceFinds(): void
    {
        $log = KnownShake::log(2000, 12, [150.0, 165.0, 180.0], 3.0, 10.0);
        $curve = TradeOff::of($log, SettingSet::none());
        self::assertCount(517, $curve->all);
        self::assertSame(1.0, $curve->part);
        $undominated = array_filter(
            $curve->all,
            static fn (Candidate $one): bool => [] === array_filter($curve->all, static fn (Candidate $other): bool => $other->beats($one)),
        );
        $point = static fn (Candidate $c): string => \sprintf('%.9f %.9f', $c->delayMs, $c->residualDps);
        $wanted = array_values(array_unique(array_map($point, $undominated)));
        sort($wanted);
        $is = array_values(array_unique(array_map($point, $curve->front)));
        sort($is);
        self::assertSame($wanted, $is);
        self::assertCount(\count($wanted), $curve->front, 'of equals only one');
        self::assertEachIsWhatItIsAlone($curve, $log, null);
    }

    /** Three axes of a craft that flew, its loop known: other filters make it fly otherwise, and each chain is worth what it is alone. */
    public function testTheCurveOfACraftThatFlewIsWhatBruteForceFinds(): void
    {
        $set = SettingSet::of(self::CHAIN + [
            'gain.roll.p' => 30.0,
            'gain.roll.i' => 60.0,
            'gain.roll.d' => 2.0,
            'gain.pitch.p' => 25.0,
            'gain.pitch.i' => 60.0,
            'gain.pitch.d' => 1.5,
            'd_path.stage.1.kind' => 'first_order',
            'd_path.stage.1.cutoff_hz' => 90.0,
            'notch.motor.orders' => '1,2',
            'motors.loop_rate_hz' => '4000',
        ]);
        $log = KnownShake::log(1000, 20, [150.0, 165.0, 180.0], 3.0, 10.0);
        $all = [];
        foreach (['roll' => 1.0, 'pitch' => 1.4, 'yaw' => 0.3] as $axis => $size) {
            $rate = array_map(static fn (float $v): float => $size * $v, $log->trace('rate_measured_roll_dps'));
            $all["rate_measured_{$axis}_dps"] = Column::ofBytes(FlightLog::packFloats($rate));
        }
        foreach ([0, 1, 2] as $m) {
            $all["rpm_place$m"] = $log->column("rpm_place$m");
            $all["output_place{$m}_pct"] = $log->column("output_place{$m}_pct");
        }
        $log = new FlightLog($log->clock, $all, '', new BadRows(0, []));
        $loop = new ClosedLoop(
            ['roll' => AxisPlant::known(400.0, 0.03, 0.003, 0.05), 'pitch' => AxisPlant::known(300.0, 0.04, 0.002, 0.1)],
            $set->with(['rate_path.stage.1.cutoff_hz' => 60.0]),
            [150.0, 165.0, 180.0],
        );
        $curve = TradeOff::of($log, $set, $loop);
        self::assertCount(517, $curve->all);
        self::assertEachIsWhatItIsAlone($curve, $log, $loop);
        $open = TradeOff::of($log, $set);
        $changed = array_map(static fn (Candidate $a, Candidate $b): float => $a->residualDps / $b->residualDps, $curve->all, $open->all);
        self::assertGreaterThan(1.01, max($changed) / min($changed), 'the loop counts');
    }

    private static function assertEachIsWhatItIsAlone(TradeOff $curve, FlightLog $log, ?ClosedLoop $loop): void
    {
        foreach ($curve->all as $i => $one) {
            if (0 !== $i % 19) {
                continue;
            }
            $alone = Candidate::told($one->chain, WhatIf::of($log, $one->chain, $loop));
            self::assertNotNull($alone);
            self::assertEqualsWithDelta(1.0, $one->residualDps / $alone->residualDps, 1e-9);
            self::assertEqualsWithDelta($alone->delayMs, $one->delayMs, 1e-9);
        }
    }

    public function testTheKneeIsFarthestFromTheChord(): void
    {
        $at = static fn (float $ms, float $dps): Candidate => new Candidate(SettingSet::none(), $dps, $ms);
        $front = [$at(0, 10), $at(1, 4), $at(2, 3.5), $at(4, 3)];
        self::assertSame(1, TradeOff::knee($front));
        self::assertNull(TradeOff::knee([$at(0, 10), $at(1, 9)]), 'two ends have no bend');
        self::assertNull(TradeOff::knee([$at(0, 10), $at(1, 9.9), $at(2, 0)]), 'nor has what bulges outward');
        self::assertSame(
            [[0.0, 10.0], [1.0, 4.0]],
            array_map(static fn (Candidate $c): array => [$c->delayMs, $c->residualDps], TradeOff::undominated([
                $at(1, 4),
                $at(0, 10),
                $at(1, 5),
                $at(2, 4),
                $at(0, 10),
            ])),
        );
    }

    /** Where somebody waits, of a log of minutes only stretches are run; they tell nearly the same, and say how much they are. */
    public function testALongLogCanBeToldByItsStretches(): void
    {
        $log = KnownShake::log(2000, 90, [150.0, 170.0], 2.0, 8.0);
        $set = SettingSet::of(self::CHAIN + ['notch.motor.orders' => '1', 'notch.motor.width_pct' => 20.0]);
        $scores = Scores::of($log, $set, null, 24_000);
        self::assertEqualsWithDelta(0.09, $scores->part, 0.01);
        [$one] = $scores->all([$set], new OneByOne());
        $alone = WhatIf::of($log, $set)->axes['roll']->residualDps;
        self::assertEqualsWithDelta(0.0, 20 * log10($one->residualDps / $alone), 0.33);
        $whole = Scores::of($log, $set, null, Scores::ALL);
        self::assertSame(1.0, $whole->part);
        self::assertEqualsWithDelta(1.0, $whole->all([$set], new OneByOne())[0]->residualDps / $alone, 1e-9);
    }

    /** A flight that is loud for a tenth of it, between two stretches: it is not overheard, whether its spectrum is known or made. */
    public function testAShortLoudPartCountsAsMuchAsItLasts(): void
    {
        $even = KnownShake::log(2000, 90, [], 1.0, 0.0);
        $loud = $even->trace('rate_measured_roll_dps');
        for ($i = 29_000; $i < 43_000; ++$i) {
            $loud[$i] *= 5;
        }
        $columns = ['rate_measured_roll_dps' => Column::ofBytes(FlightLog::packFloats(array_values($loud)))];
        $log = new FlightLog($even->clock, $columns, '', new BadRows(0, []));
        $known = ['roll' => AxisSpectrum::of($log->runs('rate_measured_roll_dps'), $log->clock->rateHz)->spectrum];
        foreach ([[], ['rate_path.stage.1.kind' => 'first_order', 'rate_path.stage.1.cutoff_hz' => 100.0]] as $chain) {
            $set = SettingSet::of($chain);
            [$one] = Scores::of($log, $set, null, 24_000)->all([$set], new OneByOne());
            [$same] = Scores::of($log, $set, null, 24_000, $known)->all([$set], new OneByOne());
            self::assertSame($one->residualDps, $same->residualDps);
            self::assertEqualsWithDelta(0.0, 20 * log10($one->residualDps / WhatIf::of($log, $set)->axes['roll']->residualDps), 0.05);
        }
    }
}
