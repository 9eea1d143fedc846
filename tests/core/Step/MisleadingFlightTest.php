<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Step;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\LogCheck\Steadiness;
use Ortholex\Core\Report\AxisAnalysis;
use Ortholex\Core\Report\AxisReport;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\StepAnalysis;
use Ortholex\Core\Step\StepCurve;
use Ortholex\Tests\core\Lcg;
use Ortholex\Tests\core\Report\KnownFlight;
use Ortholex\Tests\core\Truth\TruthCraft;
use Ortholex\Tests\core\Truth\TruthFlight;
use Ortholex\Tests\core\Truth\TruthMoves;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Flights that would mislead: motors at their ends, glides, prop wash, and a loop that is not of the kind that the prior expects. */
#[Group('slow')]
final class MisleadingFlightTest extends TestCase
{
    public function testMotorsAtTheirEndsCostConfidenceAndSayHowMuch(): void
    {
        $report = self::roll((new TruthFlight(TruthCraft::heavy()->tuned(26), 41))->fly(TruthMoves::Cruise, 40.0));
        self::assertSame(Grade::Weak, $report->confidence->grade);
        $said = array_values(array_filter($report->confidence->reasons, static fn (Fact $f): bool => $f->is(ConfidenceReason::AtEnds)));
        self::assertCount(1, $said);
        self::assertGreaterThan(35.0, $said[0]->figures['pct']);
        $free = self::roll((new TruthFlight(TruthCraft::light(), 41))->fly(TruthMoves::Cruise, 40.0));
        foreach ($free->confidence->reasons as $reason) {
            self::assertFalse($reason->is(ConfidenceReason::AtEnds));
        }
    }

    public function testAGlideHasNoGrade(): void
    {
        $loop = new KnownLoop(60, 0.5, 0.008);
        foreach ([3, 4, 5] as $seed) {
            [$x, $y] = self::glide($loop, $seed);
            $rows = [];
            foreach ($x as $i => $v) {
                $rows[] = \sprintf('%.4F,%.3F,%.3F', $i / 500, $v, $y[$i]);
            }
            $log = KnownFlight::read("time_s,setpoint_roll_dps,rate_measured_roll_dps\n".implode("\n", $rows)."\n");
            self::assertSame(Grade::None, self::roll($log)->confidence->grade, "seed $seed");
        }
    }

    public function testWashDoesNotMakeDVary(): void
    {
        for ($seed = 1; $seed <= 20; ++$seed) {
            $craft = TruthCraft::five()[$seed % 5];
            $log = (new TruthFlight($craft, 300 + $seed, withTerms: true))->fly(TruthMoves::Chops, 20.0);
            $spread = Steadiness::ofD($log, Axis::Roll);
            // Where it does not tell, it says nothing.
            self::assertLessThan(0.15, $spread ?? 0.0, "$craft->name, seed $seed");
        }
    }

    /** A fifth of the answer goes through a mode at 25 Hz that no loop of second order has: the data win over the prior. */
    public function testAModeThatThePriorHasNotIsNotFlattened(): void
    {
        [$plain, $mode] = [new KnownLoop(60, 0.7, 0.008), new KnownLoop(157, 0.12, 0.006)];
        $values = array_map(static fn (int $i): float => 0.8 * $plain->step($i / 1000) + 0.2 * $mode->step($i / 1000), range(0, 500));
        $truth = (new StepCurve(0.001, $values))->numbers();
        $peaks = $held = 0.0;
        for ($seed = 1; $seed <= 6; ++$seed) {
            [$x, $a] = $plain->fly(1000, 40, 80, $seed);
            [, $b] = $mode->fly(1000, 40, 80, $seed);
            $dice = new Lcg($seed + 50);
            $y = array_map(static fn (float $p, float $q): float => 0.8 * $p + 0.2 * $q + 6 * $dice->normal(), $a, $b);
            $result = StepAnalysis::of([$x], [$y], 1000);
            $peaks += $result->numbers->peak / 6;
            [$low, $high] = $result->intervals['peak'];
            $held += $truth->peak >= $low && $truth->peak <= $high ? 1 : 0;
        }
        self::assertEqualsWithDelta($truth->peak, $peaks, 0.03);
        self::assertGreaterThanOrEqual(4, $held);
    }

    /** Nine windows follow at any frequency by chance: no mode may be read into them. */
    public function testAFlightWithFewMovesMakesUpNoMode(): void
    {
        $loop = new KnownLoop(60, 0.6, 0.008);
        for ($seed = 1; $seed <= 6; ++$seed) {
            [$x, $y] = $loop->fly(1000, 5, 80, $seed);
            $dice = new Lcg($seed + 70);
            // Five seconds of small moves; for the better part of the flight the stick rests, and the air is rough.
            $rest = array_fill(0, 24000, 0.0);
            $gust = 0.0;
            [$x, $y] = [[...$x, ...$rest], [...$y, ...$rest]];
            foreach ($y as $i => $v) {
                $gust += 0.06 * (8 * $dice->normal() - $gust);
                [$x[$i], $y[$i]] = [0.15 * $x[$i], 0.15 * $v + $gust];
            }
            $result = StepAnalysis::of([array_values($x)], [array_values($y)], 1000);
            self::assertLessThan(12, $result->used);
            self::assertEqualsWithDelta($loop->peak(), $result->numbers->peak, 0.06, "seed $seed");
        }
    }

    private static function roll(FlightLog $log): AxisReport
    {
        return AxisAnalysis::of($log, Axis::Roll);
    }

    /** @return array{list<float>, list<float>} a stick that glides over seconds, and the loop's answer with noise, at 500 Hz */
    private static function glide(KnownLoop $loop, int $seed): array
    {
        $dice = new Lcg($seed);
        $h = 1 / 10000;
        $line = array_fill(0, (int) round($loop->deadS / $h), 0.0);
        $x = $y = [];
        $goal = $slow = $smooth = $p = $v = $until = 0.0;
        for ($i = 0; $i < 400000; ++$i) {
            if ($i * $h >= $until) {
                $goal = 500 * $dice->next();
                $until = $i * $h + 2.0 + 2 * ($dice->next() + 0.5);
            }
            $slow += $h * ($goal - $slow) / 0.5;
            $smooth += $h * ($slow - $smooth) / 0.5;
            $line[] = $smooth;
            $v += $h * ($loop->natural ** 2 * ((float) array_shift($line) - $p) - 2 * $loop->damping * $loop->natural * $v);
            $p += $h * $v;
            if (0 === $i % 20) {
                $x[] = $smooth;
                $y[] = $p + 4 * $dice->normal();
            }
        }

        return [$x, $y];
    }
}
