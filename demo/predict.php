<?php

declare(strict_types=1);

/**
 * What is predicted from one flight against what the next one shows, on three craft: 30 changes of filters on each, and 40 of gains and
 * filters on all.
 * `demo/predict.php [filters|loop]`; `bin/bench predict` runs both.
 */

require dirname(__DIR__).'/vendor/autoload.php';

use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\ClosedLoop;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Noise\AxisSpectrum;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\CrossSpectra;
use Ortholex\Core\Signal\Fft;
use Ortholex\Core\Signal\HannWindow;
use Ortholex\Core\Tuning\GainSet;
use Ortholex\Core\Tuning\LoopPrediction;
use Ortholex\Demo\Scenario;

function flight(CraftPhysics $craft, SettingSet $set, Card $card, int $seconds, int $seed): FlightLog
{
    $sim = new FlightSimulator($craft);
    $path = (string) tempnam(sys_get_temp_dir(), 'predict');
    $stream = fopen($path, 'w') ?: throw new RuntimeException('No room for a flight.');
    $moves = FlightCard::fly($card, $seconds, 150, $sim->hoverThrottle(), $seed);
    $sim->fly($moves, $set, $seconds, $seed + 7, [], new CsvRecorder($stream), static fn (float $share): bool => true);
    fclose($stream);
    $log = LogReader::readFile($path);
    unlink($path);
    if ($log->clock->durationS() < 0.95 * $seconds) {
        throw new RuntimeException('It did not stay in the air: nothing can be learnt from that.');
    }

    return $log;
}

/**
 * @param list<float> $x
 *
 * @return list<float>
 */
function differences(array $x): array
{
    $out = [];
    for ($i = 1, $n = count($x); $i < $n; ++$i) {
        $out[] = $x[$i] - $x[$i - 1];
    }

    return $out;
}

/** Phase delay about 30 Hz of the filtered rate behind the measured one, ms: of what is between them, averaged evenly along the flight. */
function delayMs(FlightLog $log, Axis $axis): float
{
    $rate = $log->clock->rateHz;
    $n = 2 ** (int) round(log($rate, 2));
    $fft = Fft::ofSize($n);
    $taper = HannWindow::ofSize($n)->weights;
    // Both as differences: what leaks from the strong low frequencies is gone, and how late one is behind the other stays.
    $measured = differences(differences($log->trace(Traces::measuredRate($axis))));
    $filtered = differences(differences($log->trace((string) $log->rateAsFlown($axis))));
    [$from, $to] = [(int) round((26 * $n) / $rate), (int) round((34 * $n) / $rate)];
    $re = $im = 0.0;
    for ($at = 0; $at + $n <= count($measured); $at += $n >> 2) {
        $one = CrossSpectra::of($fft, array_slice($measured, $at, $n), array_slice($filtered, $at, $n), $taper, $to);
        $cr = $ci = $xx = 0.0;
        for ($k = $from; $k <= $to; ++$k) {
            // Each frequency turned by how far it is from 30 Hz, as what is a delay there turns it.
            $turn = ((30 - ($k * $rate) / $n) / 30) * atan2($one['ci'][$k], $one['cr'][$k]);
            $cr += $one['cr'][$k] * cos($turn) - $one['ci'][$k] * sin($turn);
            $ci += $one['cr'][$k] * sin($turn) + $one['ci'][$k] * cos($turn);
            $xx += $one['xx'][$k];
        }
        $re += $cr / $xx;
        $im += $ci / $xx;
    }

    return (1e3 * -atan2($im, $re)) / (2 * M_PI * 30);
}

/** @param list<float> $off */
function share(array $off, float $within): string
{
    $in = count(array_filter($off, static fn (float $v): bool => abs($v) <= $within));
    $worst = max([0.0, ...array_map(abs(...), $off)]);

    return sprintf('%d of %d within %.2f (%.0f %%), worst %.2f', $in, count($off), $within, (100 * $in) / max(1, count($off)), $worst);
}

/** Dunlin comes with the faults of its building; here it is mounted, wired and its ESCs are set as sheets 11 to 16 leave it. */
function built(string $name): CraftPhysics
{
    $physics = Scenario::craft()[$name]->physics;
    if ('dunlin' !== $name) {
        return $physics;
    }
    $pads = [1 => 'front_right', 2 => 'rear_right', 3 => 'rear_left', 4 => 'front_left'];
    $sound = ['mountedDeg' => [0.0, 0.0, 0.0], 'levelFault' => [0.0, 0.0], 'wiredPads' => $pads, 'escs' => [], 'magnets' => 14];

    return (new ReflectionClass(CraftPhysics::class))->newInstanceArgs($sound + get_object_vars($physics));
}

function settings(string $craft): SettingSet
{
    return Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with(Scenario::craft()[$craft]->settings);
}

$which = $argv[1] ?? 'both';
if ('loop' !== $which) {
    $changes = [
        ['rate_path.stage.1.cutoff_hz' => 90.0], ['rate_path.stage.1.cutoff_hz' => 130.0], ['rate_path.stage.1.cutoff_hz' => 250.0],
        ['rate_path.stage.1.kind' => 'off'], ['rate_path.stage.1.kind' => 'first_order'], ['notch.motor.orders' => ''],
        ['notch.motor.orders' => '1'], ['notch.motor.orders' => '1,2,3', 'motors.rpm_feedback' => true],
        ['notch.motor.width_pct' => 40.0], ['notch.motor.width_pct' => 12.0], ['notch.tracking.peaks' => 2],
        ['notch.tracking.peaks' => 3, 'notch.tracking.width_pct' => 30.0], ['notch.tracking.peaks' => 1, 'notch.motor.orders' => ''],
        ['rate_path.stage.2.kind' => 'first_order', 'rate_path.stage.2.cutoff_hz' => 150.0],
        ['rate_path.stage.2.kind' => 'second_order', 'rate_path.stage.2.cutoff_hz' => 200.0],
        ['rate_path.stage.1.cutoff_hz' => 110.0], ['rate_path.stage.1.cutoff_hz' => 150.0], ['rate_path.stage.1.cutoff_hz' => 400.0],
        ['rate_path.stage.1.kind' => 'first_order', 'rate_path.stage.1.cutoff_hz' => 90.0],
        ['rate_path.stage.1.kind' => 'first_order', 'rate_path.stage.1.cutoff_hz' => 300.0],
        ['rate_path.stage.1.kind' => 'off', 'notch.motor.orders' => '1'],
        ['rate_path.stage.1.kind' => 'off', 'notch.motor.orders' => '1,2,3', 'notch.motor.width_pct' => 15.0],
        ['notch.motor.orders' => '1,2', 'notch.motor.width_pct' => 30.0], ['notch.motor.floor_hz' => 110.0],
        ['notch.motor.orders' => '1', 'notch.tracking.peaks' => 1],
        ['notch.tracking.peaks' => 2, 'notch.tracking.band_hz' => '100,250'],
        ['rate_path.stage.1.cutoff_hz' => 120.0, 'notch.motor.orders' => ''],
        ['rate_path.stage.1.cutoff_hz' => 250.0, 'notch.tracking.peaks' => 2],
        ['rate_path.stage.2.kind' => 'first_order', 'rate_path.stage.2.cutoff_hz' => 300.0],
        ['rate_path.stage.1.kind' => 'off', 'rate_path.stage.2.kind' => 'first_order', 'rate_path.stage.2.cutoff_hz' => 110.0],
    ];
    foreach (['curlew', 'dunlin', 'bittern'] as $name) {
        $db = $delay = [];
        $craft = built($name);
        // A calm tune: of one that nearly swings, other filters change how it flies more than what they take out.
        [$p, $d] = 'dunlin' === $name ? [13.0, 1.2] : [22.0, 2.2];
        $base = settings($name)->with(['motors.rpm_feedback' => true, 'gain.roll.p' => $p, 'gain.roll.d' => $d]);
        $base = $base->with(['gain.pitch.p' => $p, 'gain.pitch.d' => $d]);
        $log = flight($craft, $base, Card::HoverAndClimb, 30, 1);
        $loop = ClosedLoop::in($log, $base);
        // How much two flights differ with nothing changed: no prediction can be nearer than that.
        foreach ([Axis::Roll, Axis::Pitch] as $axis) {
            $left = array_map(
                static fn (FlightLog $l): float => AxisSpectrum::of($l->runs((string) $l->rateAsFlown($axis)), $l->clock->rateHz)->rmsDps,
                [$log, ...array_map(static fn (int $seed): FlightLog => flight($craft, $base, Card::HoverAndClimb, 30, $seed), [2, 3, 4])],
            );
            printf("%-8s %-6s nothing changed, four flights: %.2f dB apart\n", $name, $axis->value, 20 * log10(max($left) / min($left)));
        }
        foreach ($changes as $change) {
            $with = WhatIf::of($log, $base->with($change), $loop);
            // The next flight: the same pilot and weather, other filters.
            $next = flight($craft, $base->with($change), Card::HoverAndClimb, 30, 1);
            foreach ([Axis::Roll, Axis::Pitch] as $axis) {
                $flown = AxisSpectrum::of($next->runs((string) $next->rateAsFlown($axis)), $next->clock->rateHz)->rmsDps;
                $db[] = 20 * log10($with->axes[$axis->value]->residualDps / $flown);
                $delay[] = $with->axes[$axis->value]->delayMs - delayMs($next, $axis);
                printf("%-8s %-6s %-90s %+5.2f dB %+5.2f ms\n", $name, $axis->value, json_encode($change), end($db), end($delay));
            }
        }
        printf("filters, %s: residual, dB: %s (wanted 1)\n", $name, share($db, 1.0));
        printf("filters, %s: delay at 30 Hz, ms: %s (wanted 0.1)\n", $name, share($delay, 0.1));
    }
}
if ('filters' !== $which) {
    $peaks = $delays = [];
    $base = settings('curlew')->with(['gain.roll.p' => 25.0, 'gain.roll.d' => 2.2, 'gain.roll.i' => 60.0]);
    foreach ([[1.0, 0.022], [0.8, 0.03], [1.35, 0.016]] as $n => [$size, $lag]) {
        $values = get_object_vars(Scenario::craft()['curlew']->physics);
        [$roll, $pitch, $yaw] = Scenario::craft()['curlew']->physics->inertia;
        $values['inertia'] = [$roll * $size, $pitch * $size, $yaw * $size];
        $values['motorLagS'] = $lag;
        $craft = (new ReflectionClass(CraftPhysics::class))->newInstanceArgs($values);
        $analysis = FlightAnalysis::of(flight($craft, $base, Card::MixedSticks, 30, 11 + $n));
        $plant = $analysis->plants['roll'];
        foreach ([0.7, 0.85, 1.0, 1.2] as $p) {
            foreach ([[0.6, 180.0], [1.0, 120.0], [1.5, 260.0], [1.25, 180.0]] as $m => [$d, $cutoff]) {
                if (3 === $m && 1.2 === $p) {
                    continue;
                }
                $set = $base->with([
                    'gain.roll.p' => round(50 * $p) / 2,
                    'gain.roll.d' => round(22 * $p * $d) / 10,
                    'rate_path.stage.1.cutoff_hz' => $cutoff,
                ]);
                $filters = RateFilters::of($set, $set->loopHz(), $analysis->rotorHz);
                $said = LoopPrediction::of($plant, GainSet::ofAxis($set, Axis::Roll), $filters)->curve->numbers();
                $step = FlightAnalysis::of(flight($craft, $set, Card::MixedSticks, 30, 40 + $n))->axes['roll']->step;
                if (null !== $step && null !== $said->delayMs && null !== $step->numbers->delayMs) {
                    $peaks[] = $said->peak - $step->numbers->peak;
                    $delays[] = $said->delayMs - $step->numbers->delayMs;
                    $row = "craft %d  P × %.2f  D/P × %.2f  %3.0f Hz  peak %+5.3f  delay %+5.2f ms\n";
                    printf($row, $n, $p, $d, $cutoff, end($peaks), end($delays));
                }
            }
        }
    }
    printf("loop: peak: %s (wanted 0.08 in 90 %%)\n", share($peaks, 0.08));
    printf("loop: delay, ms: %s (wanted 1.5 in 90 %%)\n", share($delays, 1.5));
}
