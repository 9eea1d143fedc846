<?php

declare(strict_types=1);

/*
 * What the analyses say of flights whose truth is known, as a table: `bin/bench truth [SEEDS]`. A part of it: php truth.php PART SEEDS.
 */

namespace Ortholex\Tests\core\Truth;

use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\Incident\Incident;
use Ortholex\Core\Incident\Incidents;
use Ortholex\Core\Step\StepAnalysis;
use Ortholex\Core\Step\StepCurve;
use Ortholex\Tests\core\Lcg;
use Ortholex\Tests\core\Report\KnownFlight;
use Ortholex\Tests\core\Step\KnownLoop;

require __DIR__.'/../../../vendor/autoload.php';

$part = $argv[1] ?? 'sound';
$seeds = max(1, (int) ($argv[2] ?? 20));

/** A motor that should push less than this share of its push at hover has nothing to lose. */
const NOTHING_TO_LOSE = 0.15;

/** @param string $goal as the issue has it */
function line(string $case, int $n, string $figure, string $goal, bool $met): void
{
    printf("%-62s n %4d   %-26s goal %-16s %s\n", $case, $n, $figure, $goal, $met ? 'met' : 'MISSED');
}

/** @return list<Incident> */
function accused(
    TruthFlight $flight,
    TruthMoves $moves,
    float $s,
    TruthFault $fault,
    ?string $place,
    float $at,
    float $lasts,
    bool $rpm,
): array {
    $found = Incidents::of($flight->fly($moves, $s, $fault, $place, $at, $lasts, $rpm));

    return array_values(array_filter($found, static fn (Incident $i): bool => null !== $i->place));
}

if ('sound' === $part) {
    // Clean hard flying, 20 s each: five craft, three manners, with rpm and without.
    $flights = $wrong = 0;
    foreach (TruthCraft::five() as $craft) {
        foreach ([TruthMoves::Hard, TruthMoves::Reversals, TruthMoves::Punches] as $moves) {
            for ($seed = 1; $seed <= $seeds; ++$seed) {
                $flight = new TruthFlight($craft, 500 + $seed);
                $wrong += \count(accused($flight, $moves, 20.0, TruthFault::None, null, 0.0, 0.0, 0 === $seed % 2));
                ++$flights;
            }
        }
    }
    line(\sprintf('sound motors accused in %.0f minutes of hard flying', $flights / 3), $flights, "$wrong accused", '0', 0 === $wrong);
    foreach (
        [
            'collisions' => [TruthMoves::Cruise, TruthFault::Collision],
            'collisions in hard flying' => [TruthMoves::Hard, TruthFault::Collision],
            'sensor glitches' => [TruthMoves::Cruise, TruthFault::Glitch],
            'prop wash after chops' => [TruthMoves::Chops, TruthFault::None],
        ] as $case => [$moves, $fault]
    ) {
        $wrong = $n = 0;
        foreach (TruthCraft::five() as $craft) {
            for ($seed = 1; $seed <= max(1, intdiv($seeds, 2)); ++$seed) {
                $all = accused(new TruthFlight($craft, 700 + $seed), $moves, 30.0, $fault, null, 5.0, 0.0, 0 === $seed % 2);
                $wrong += [] === $all ? 0 : 1;
                ++$n;
            }
        }
        line("flights with a motor accused: $case", $n, "$wrong", '0', 0 === $wrong);
    }
}

if ('failing' === $part) {
    foreach (
        [
            'full loss of 0.2 s' => [TruthFault::MotorStops, 0.2, 1.0],
            'full loss of 0.5 s' => [TruthFault::MotorStops, 0.5, 1.0],
            'half loss of 2 s, motor' => [TruthFault::MotorHalf, 2.0, 0.9],
            'half loss of 2 s, prop' => [TruthFault::PropHalf, 2.0, 0.9],
        ] as $case => [$fault, $lasts, $least]
    ) {
        foreach ([true, false] as $rpm) {
            $n = $hit = $wrong = $idle = 0;
            $late = 0.0;
            foreach (TruthCraft::five() as $c => $craft) {
                for ($seed = 1; $seed <= max(1, intdiv($seeds, 2)); ++$seed) {
                    $places = array_keys($craft->motors);
                    $place = $places[$seed % \count($places)];
                    $at = 12.0 + 0.37 * ($seed % 7);
                    $moves = 0 === ($seed + $c) % 2 ? TruthMoves::Cruise : TruthMoves::Hard;
                    $named = false;
                    $flight = new TruthFlight($craft, 900 + $seed);
                    foreach (accused($flight, $moves, 25.0, $fault, $place, $at, $lasts, $rpm) as $i) {
                        if ($i->place === $place && abs($i->atS - $at) < 1.0) {
                            $named = true;
                            $late = max($late, abs($i->atS - $at));
                        } else {
                            ++$wrong;
                        }
                    }
                    // A flight that ended before, or a motor that idled, lost nothing.
                    if ($flight->toLose < NOTHING_TO_LOSE) {
                        ++$idle;
                        continue;
                    }
                    $hit += $named ? 1 : 0;
                    ++$n;
                }
            }
            $figure = \sprintf('%d named, %d wrong, %.2f s', $hit, $wrong, $late).($idle > 0 ? " ($idle idle)" : '');
            $met = $hit >= $least * $n && 0 === $wrong && (TruthFault::MotorStops !== $fault || $late <= 0.1);
            line($case.($rpm ? ', rpm logged' : ', no rpm'), $n, $figure, \sprintf('%d, 0 wrong', ceil($least * $n)), $met);
        }
    }
}

if ('steps' === $part) {
    $loops = ['firm' => [60, 0.7, 0.008], 'soft' => [20, 0.9, 0.01], 'overdamped' => [45, 1.6, 0.008], 'ringing' => [70, 0.25, 0.006]];
    foreach ($loops as $name => $l) {
        foreach ([500, 1000, 4000, 8000] as $rate) {
            $loop = new KnownLoop(...$l);
            $values = array_map(static fn (int $i): float => $loop->step($i / 1000), range(0, 500));
            $truth = (new StepCurve(0.001, $values))->numbers()->toArray();
            $held = $off = array_fill_keys(['delay_ms', 'rise_ms', 'peak', 'steady'], 0.0);
            for ($seed = 1; $seed <= $seeds; ++$seed) {
                [$x, $y] = $loop->fly($rate, 40, 20, $seed);
                $dice = new Lcg($seed + 999);
                $gust = 0.0;
                $step = 1 / $rate / 0.3;
                foreach ($y as $i => $v) {
                    $gust += -$gust * $step + sqrt(2 * $step) * 6 * $dice->normal();
                    $y[$i] = $v + $gust;
                }
                $result = StepAnalysis::of([$x], [$y], $rate);
                foreach (array_keys($held) as $key) {
                    [$low, $high] = $result->intervals[$key] ?? [0, 0];
                    $off[$key] += (($result->numbers->toArray()[$key] ?? 0) - $truth[$key]) / $seeds;
                    $held[$key] += ($truth[$key] >= $low && $truth[$key] <= $high ? 100 : 0) / $seeds;
                }
            }
            foreach ($held as $key => $pct) {
                $most = str_ends_with($key, '_ms') ? 1.0 : 0.02;
                $met = $pct >= 85 && abs($off[$key]) <= $most;
                $figure = \sprintf('%.0f %%, off by %.3f', $pct, $off[$key]);
                line("interval of $key, $name loop, $rate Hz", $seeds, $figure, '85–95 %, '.$most, $met);
            }
        }
    }
    foreach ([0.1, 0.2, 0.3] as $jitter) {
        $g = new KnownFlight(7);
        $times = array_map(static fn (int $i): float => ($i + $jitter * $g->gauss()) / 1000, range(0, 59999));
        $clock = SampleClock::fromTimes($times);
        $false = \count($clock->gaps());
        line(\sprintf('gaps invented by stamps that are off by %.0f %%', 100 * $jitter), 60000, "$false", '0', 0 === $false);
    }
}
