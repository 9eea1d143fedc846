<?php

declare(strict_types=1);

/**
 * Flies seeded craft from a sluggish and from a ringing start along the road map, without anybody choosing, and prints where each ends.
 * `demo/tune.php [CRAFT] [FROM]`; `bin/bench tune` runs it.
 */

require dirname(__DIR__).'/vendor/autoload.php';

use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Bench\Room\FromParts;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\LogCheck\FlightPlan;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Parts\Plan\CraftFigures;
use Ortholex\Core\Parts\Plan\CraftPlan;
use Ortholex\Core\Report\Charts;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Core\RoadMap\Evidence;
use Ortholex\Core\RoadMap\RoadMap;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\LoopMargins;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Demo\Scenario;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

const MOST_FLIGHTS = 8;
const SECONDS = 24;

/** Craft of many sizes: Curlew's with other inertia, thrust, motors and balance. */
function craft(int $seed): CraftPhysics
{
    $dice = new Randomizer(new Xoshiro256StarStar(7000 + $seed));
    $between = static fn (float $a, float $b): float => $a * ($b / $a) ** ($dice->getInt(0, 1_000_000) / 1e6);
    $of = Scenario::craft()['curlew']->physics;
    $size = $between(0.7, 1.5);
    $with = get_object_vars($of);
    $with['inertia'] = [0.0029 * $size * $between(0.85, 1.2), 0.0033 * $size * $between(0.85, 1.25), 0.0056 * $size];
    $with['massKg'] = $of->massKg * $between(0.85, 1.3);
    $with['thrustN'] = $of->thrustN * $between(0.8, 1.25);
    $with['motorLagS'] = $between(0.014, 0.034);
    $with['imbalance'] = array_map(static fn (): float => $between(10, 34), $of->imbalance);
    $with['gyroNoiseDps'] = $between(0.2, 0.6);

    return (new ReflectionClass(CraftPhysics::class))->newInstanceArgs($with);
}

/** @return array{Report, Charts} */
function flown(CraftPhysics $craft, SettingSet $set, int $seed): array
{
    $sim = new FlightSimulator($craft);
    $path = (string) tempnam(sys_get_temp_dir(), 'tune');
    $stream = fopen($path, 'w') ?: throw new RuntimeException('No room for a flight.');
    $all = static fn (float $share): bool => true;
    $card = FlightCard::fly(Card::MixedSticks, SECONDS, 150, $sim->hoverThrottle(), $seed);
    $sim->fly($card, $set, SECONDS, $seed + 7, [], new CsvRecorder($stream), $all);
    fclose($stream);
    $log = LogReader::readFile($path);
    unlink($path);
    $analysis = FlightAnalysis::of($log);

    return [Report::of($log, $analysis), Charts::of($analysis)];
}

/** @return array{CraftPhysics, SettingSet} one put together from the catalogue, as an experienced hand leaves it */
function fromParts(int $seed): array
{
    $dice = new Randomizer(new Xoshiro256StarStar(9000 + $seed));
    $all = PartsCatalogue::shipped();
    $one = static fn (array $of): string => (string) array_keys($of)[$dice->getInt(0, count($of) - 1)];
    do {
        $frame = $all->frames[$one($all->frames)];
        $plan = new CraftPlan(
            $frame->withDiagonal($frame->diagonalMm * $dice->getInt(90, 115) / 100),
            $all->motors[$one($all->motors)],
            $all->props[$one($all->props)],
            $all->escs[$one($all->escs)],
            $all->packs[$one($all->packs)],
            $all->boards[$one($all->boards)],
            ['rill-c'],
        );
    } while (!CraftFigures::of($plan)->works());
    $build = FromParts::build("craft $seed", $plan, [], $seed);
    if (getenv('ALL')) {
        echo "    {$plan->frame->name} {$plan->frame->diagonalMm}, {$plan->motor->name}, {$plan->prop->name}, {$plan->pack->name}\n";
    }

    return [$build->physics, Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with($build->settings)];
}

$most = (int) ($argv[1] ?? 20);
$starts = ['sluggish' => [0.4, 0.5, 0.6], 'ringing' => [1.35, 1.0, 0.35], 'parts' => [1.0, 1.0, 1.0]];
$reached = [];
foreach (isset($argv[2]) ? [$argv[2] => $starts[$argv[2]]] : $starts as $name => [$p, $i, $d]) {
    $ok = 0;
    for ($seed = 1; $seed <= $most; ++$seed) {
        [$craft, $set] = 'parts' === $name
            ? fromParts($seed)
            : [craft($seed), Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with(Scenario::craft()['curlew']->settings)];
        $set = $set->with(FlightPlan::forResponse($set));
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $set = $set->with([
                "gain.$axis.p" => round(2 * $p * $set->number("gain.$axis.p")) / 2,
                "gain.$axis.i" => round($i * $set->number("gain.$axis.i")),
                "gain.$axis.d" => round(10 * $d * $set->number("gain.$axis.d")) / 10,
            ]);
        }
        $end = null;
        for ($flight = 1; $flight <= MOST_FLIGHTS; ++$flight) {
            [$report, $charts] = flown($craft, $set, 100 * $seed + $flight);
            $evidence = Evidence::of($report, $charts, $set);
            $next = RoadMap::from($set, $evidence);
            if (getenv('ALL')) {
                printf("    %d %s %s %s\n", $flight, $next->at->value, json_encode($next->why->figures), json_encode($next->stage));
            }
            if ([] === $next->stage) {
                $end = $next->at;
                break;
            }
            $set = $set->with($next->stage);
        }
        $filters = RateFilters::of($set, $set->loopHz(), $charts->rotorHz);
        $modulus = $peaks = $states = [];
        foreach (['roll', 'pitch'] as $axis) {
            $peaks[] = $evidence->peaks[$axis] ?? 9.9;
            $states[] = $evidence->verdicts[$axis] ?? TermState::CannotTell;
            $plant = $charts->plants[$axis] ?? null;
            $modulus[] = null === $plant ? 0.0 : LoopMargins::of($plant, GainSet::ofAxis($set, Axis::from($axis)), $filters)->modulus;
        }
        $stands = array_filter($states, static fn (TermState $s): bool => in_array($s, [TermState::Oscillation, TermState::Noise], true));
        $good = null !== $end && max($peaks) < 1.15 && min($modulus) > 0.5 && [] === $stands;
        $ok += $good ? 1 : 0;
        printf(
            "%-9s craft %2d  %d flights  %-12s peak %.2f %.2f  modulus %.2f %.2f  %s\n",
            $name,
            $seed,
            min($flight, MOST_FLIGHTS),
            $end->value ?? 'not ended',
            ...[...$peaks, ...$modulus, $good ? 'ok' : 'NOT: '.implode(', ', array_column($stands, 'value'))],
        );
    }
    printf("%-9s %d of %d end at a peak under 1.15, a modulus margin over 0.5 and no verdict (wanted 18 of 20)\n", $name, $ok, $most);
}
