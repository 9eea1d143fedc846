<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Series;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Series\Criterion;
use Ortholex\Core\Series\SeriesError;
use Ortholex\Core\Series\SeriesFlaw;
use Ortholex\Core\Series\SeriesFlight;
use Ortholex\Core\Series\SeriesPlan;
use Ortholex\Core\Series\SeriesResult;
use Ortholex\Tests\core\Filters\KnownShake;
use PHPUnit\Framework\TestCase;

final class SeriesTest extends TestCase
{
    public function testTheBaselineIsFlownFirstAndLastAndStepsRiseBetween(): void
    {
        $now = SettingSet::of(['gain.roll.ff' => 0.0, 'gain.pitch.ff' => 0.0, 'gain.roll.p' => 30.0, 'gain.roll.d' => 2.0]);
        $plan = SeriesPlan::of($now, ['gain.roll.ff'], 1.8, 0.0, 4, Card::MixedSticks);
        self::assertSame([0.0, 0.6, 1.2, 1.8], $plan->values, 'whichever end is named first');
        self::assertSame([0.0, 0.6, 1.2, 1.8, 0.0], $plan->flights());
        $both = SeriesPlan::of($now, ['gain.roll.ff', 'gain.pitch.ff'], 0, 1.2, 3, Card::MixedSticks);
        self::assertSame(['gain.roll.ff' => 0.6, 'gain.pitch.ff' => 0.6], $both->at(0.6, $now), 'from nought, all get the same');
        $scaled = SeriesPlan::of($now, ['gain.roll.p', 'gain.roll.d'], 24, 36, 3, Card::MixedSticks);
        self::assertSame(['gain.roll.p' => 36.0, 'gain.roll.d' => 2.4], $scaled->at(36.0, $now), 'a group is scaled by one factor');
        self::assertSame([30.0, 24.0, 36.0, 30.0], $scaled->flights());
    }

    public function testWhatCannotBePlannedSaysWhy(): void
    {
        $now = SettingSet::of(['gain.roll.p' => 30.0, 'gain.roll.d' => 0.0, 'motors.protocol' => 'none']);
        $wrong = [
            SeriesFlaw::NothingVaried->value => [[], 1, 2, 3],
            SeriesFlaw::NoNumber->value => [['motors.protocol'], 1, 2, 3],
            SeriesFlaw::NothingToScale->value => [['gain.roll.p', 'gain.roll.d'], 20, 40, 3],
            SeriesFlaw::Steps->value => [['gain.roll.p'], 20, 40, 12],
            SeriesFlaw::NoRange->value => [['gain.roll.p'], 20, 20, 3],
        ];
        foreach ($wrong as $flaw => [$settings, $from, $to, $steps]) {
            try {
                SeriesPlan::of($now, $settings, $from, $to, $steps, Card::MixedSticks);
                self::fail("$flaw was taken");
            } catch (SeriesError $e) {
                self::assertSame($flaw, $e->fact()->code->value);
            }
        }
    }

    public function testEachKindOfSettingHasItsOwnCriterion(): void
    {
        self::assertSame(Criterion::Lag, Criterion::for('gain.pitch.ff'));
        self::assertSame(Criterion::StepError, Criterion::for('gain.roll.d'));
        self::assertSame(Criterion::Noise, Criterion::for('notch.motor.orders'));
        self::assertSame(Criterion::Shaking, Criterion::for('mounting.replaced'));
        self::assertSame([Axis::Pitch], SeriesResult::touched(['gain.pitch.ff']));
        self::assertSame([Axis::Roll, Axis::Pitch], SeriesResult::touched(['gain.roll.p', 'gain.pitch.p']));
        self::assertSame(Axis::cases(), SeriesResult::touched(['rate_path.stage.1.cutoff_hz']));
    }

    /** Noise before the filters of three flights: white, of deviations that are known. */
    public function testTheQuietestIsBestAndItsLikeAreNamedWithIt(): void
    {
        $flights = [$this->flight(1, 5.0), $this->flight(2, 2.0), $this->flight(3, 2.05), $this->flight(1, 5.0)];
        $roll = SeriesResult::of(['mount'], $flights)->axes['roll'];
        self::assertSame([false, true, true, false], array_map(static fn ($p): bool => $p->best, $roll->points));
        self::assertSame([2.0, 2.0, 3.0], $roll->proposal);
        self::assertNull($roll->drift);
        self::assertNotNull($roll->next);
        self::assertEqualsWithDelta(5.0, $roll->points[0]->figure ?? 0, 0.2);
    }

    public function testWhatDriftedIsSaid(): void
    {
        $roll = SeriesResult::of(['mount'], [$this->flight(1, 3.0), $this->flight(2, 2.0), $this->flight(1, 6.0)])->axes['roll'];
        self::assertEqualsWithDelta(3.0, $roll->drift ?? 0, 0.4);
    }

    /** In each of fifty series one flight differs in something else: each time it is found, named, and does not count. */
    public function testConfoundedFlightsAreFoundInAll(): void
    {
        $base = ['gain.roll.p' => 30.0, 'gain.roll.d' => 2.0, 'rate_path.stage.1.cutoff_hz' => 180.0, 'props.diameter_mm' => 127.0];
        $names = array_keys($base);
        for ($n = 0; $n < 50; ++$n) {
            $bad = 1 + $n % 3;
            $other = $names[$n % 4];
            $flights = [];
            for ($i = 0; $i < 4; ++$i) {
                $set = SettingSet::of($base + ['mount' => (float) $i]);
                $flights[] = $this->flight($i, $bad === $i ? 1.0 : 3.0 + $i, $bad === $i ? $set->with([$other => 7.0]) : $set);
            }
            $roll = SeriesResult::of(['mount'], $flights)->axes['roll'];
            self::assertSame([$other], $roll->points[$bad]->differs);
            self::assertFalse($roll->points[$bad]->best, 'quietest, and yet it does not count');
            self::assertSame(0.0, $roll->proposal[0] ?? null);
        }
    }

    public function testHotMotorsDoNotCount(): void
    {
        $hot = new SeriesFlight(2, 'C-2', SettingSet::none(), $this->flight(2, 1.0)->report, hot: true);
        $roll = SeriesResult::of(['mount'], [$this->flight(1, 3.0), $hot])->axes['roll'];
        self::assertFalse($roll->points[1]->counts());
        self::assertSame(1.0, $roll->proposal[0] ?? null);
        self::assertSame([], SeriesResult::of(['mount'], [$hot])->axes, 'with nothing that counts nothing is said');
    }

    /** Lag falls by 3.75 ms from step to step: the line crosses at 3.87, and nothing is believed there before it has been flown. */
    public function testACrossingBeyondWhatWasFlownIsFlownFirst(): void
    {
        $short = array_map(fn (int $v): SeriesFlight => $this->lagging((float) $v, 14.5 - 3.75 * $v), [0, 1, 2]);
        $roll = SeriesResult::of(['gain.roll.ff'], $short)->axes['roll'];
        self::assertEqualsWithDelta(3.87, $roll->lag->crossing[0] ?? 0, 0.1);
        self::assertTrue($roll->allLag);
        self::assertSame([2.0, 2.0, 2.0], $roll->proposal);
        self::assertSame(3.0, $roll->next);
        $far = array_map(fn (int $v): SeriesFlight => $this->lagging((float) $v, 14.5 - 3.75 * $v), [0, 1, 2, 3, 4]);
        $roll = SeriesResult::of(['gain.roll.ff'], $far)->axes['roll'];
        self::assertFalse($roll->allLag);
        [$value, $low, $high] = $roll->proposal ?? [0.0, 0.0, 0.0];
        self::assertTrue($low <= $value && $value <= $high, 'what is proposed lies within what is as good');
        self::assertEqualsWithDelta(3.87, ($low + $high) / 2, 0.1);
    }

    /** A flight of which only the lag of roll is known. */
    private function lagging(float $value, float $ms): SeriesFlight
    {
        $report = (new \ReflectionClass(Report::class))->newInstanceWithoutConstructor();
        $known = ['ms' => $ms, 'iqr_ms' => 0.8, 'error_ms' => 0.2, 'windows' => 20, 'band_hz' => [1.0, 6.0], 'move_dps' => 120.0];
        $lag = AxisLag::fromArray(Stored::of($known));
        (new \ReflectionProperty(Report::class, 'lags'))->setValue($report, ['roll' => $lag]);

        return new SeriesFlight($value, "C-$value", SettingSet::of(['gain.roll.ff' => $value]), $report);
    }

    private function flight(float $value, float $white, ?SettingSet $set = null): SeriesFlight
    {
        static $reports = [];
        $report = $reports[(string) $white] ??= $this->report(KnownShake::log(1000, 12, [], $white, 0.0));
        self::assertInstanceOf(Report::class, $report);

        return new SeriesFlight($value, "C-$value", $set ?? SettingSet::of(['mount' => $value]), $report);
    }

    private function report(FlightLog $log): Report
    {
        return Report::of($log, FlightAnalysis::of($log, false));
    }
}
