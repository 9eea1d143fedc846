<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight;

use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\World\FlightEnd;

/**
 * A closed-loop flight: pilot, receiver, the firmware's own filters, gains and mixer, motors, a rigid body, noise.
 *
 * The firmware part runs exactly what the settings say, so a wrong setting flies wrong. Rates in deg/s, outputs
 * in %; one control step per loop period, two or more physical steps within it. Kept in one loop, on plain local
 * variables, because it runs some hundred million operations a flight (measured: objects made it six times slower).
 */
final readonly class FlightSimulator
{
    /** Rotation nobody asked for, deg/s, and for how long, after which the craft lies on the ground; s. */
    private const LOST_DPS = 900.0;

    private const LOST_S = 0.4;
    private const PHYSICS_HZ = 4000.0;

    /** Random numbers that one control step takes at most. */
    private const MOST_RANDOM = 32;

    /** Traces that there is one of for each axis. */
    private const BY_AXIS = [
        'setpoint_%s_dps',
        'rate_measured_%s_dps',
        'rate_filtered_%s_dps',
        'term_p_%s',
        'term_i_%s',
        'term_d_%s',
        'term_ff_%s',
    ];

    public function __construct(private CraftPhysics $craft)
    {
    }

    /** @return list<string> the traces a flight of this craft records, in order */
    public function traces(int $trackingNotches): array
    {
        $names = ['throttle_pct', 'stick_roll_us', 'stick_pitch_us', 'stick_yaw_us', 'stick_throttle_us'];
        foreach (self::BY_AXIS as $pattern) {
            foreach (['roll', 'pitch', 'yaw'] as $axis) {
                $names[] = \sprintf($pattern, $axis);
            }
        }
        foreach ($this->craft->frame->places() as $place) {
            $names[] = "output_{$place}_pct";
        }
        foreach ($this->craft->frame->places() as $place) {
            $names[] = "rpm_$place";
        }
        for ($n = 1; $n <= $trackingNotches; ++$n) {
            $names[] = "tracking_notch_{$n}_hz";
        }

        return [...$names, 'accel_x_g', 'accel_y_g', 'accel_z_g', 'battery_v', 'current_a'];
    }

    /** Throttle at which the craft hovers, 0..1. */
    public function hoverThrottle(): float
    {
        return sqrt(($this->craft->massKg * 9.81) / (\count($this->craft->frame->motors) * $this->craft->thrustN));
    }

    /**
     * Flies and writes the log as our own CSV.
     *
     * Long because the loop runs some hundred million operations a flight on plain local variables: cut into objects a step
     * took six times as long (measured on a 40 s flight at 2 kHz).
     *
     * @param SettingSet            $set      the board's settings under current names
     * @param list<string>          $faults   loose_arm, bent_prop, lost_sync, backward:PLACE for a motor that turns against its
     *                                        prop, dead:PLACE for one that does not turn
     * @param resource                             $stream
     * @param string                               $head     YAML to stand ahead of the header
     * @param \Closure(float): bool                $progress told the share flown; false stops the flight
     */
    public function fly(
        FlightCard $card,
        SettingSet $set,
        float $seconds,
        int $seed,
        array $faults,
        $stream,
        string $head,
        \Closure $progress,
    ): FlightEnd {
        $craft = $this->craft;
        $loopHz = $set->loopHz();
        $dt = 1.0 / $loopHz;
        $subs = max(1, (int) ceil(self::PHYSICS_HZ / $loopHz));
        $h = $dt / $subs;
        $n = \count($craft->frame->motors);
        $places = array_flip($craft->frame->places());
        $steps = (int) round($seconds * $loopHz);

        // The firmware, out of its settings.
        $control = FlightControl::of($set, $loopHz, $card->on);
        [$kp, $ki, $kd, $kf, $addedD] = [$control->kp, $control->ki, $control->kd, $control->kf, $control->addedD];
        [$ratePath, $dPath, $command, $mixer] = [$control->ratePath, $control->dPath, $control->command, $control->mixer];
        [$orders, $notchQ, $notchFloor, $notchTop] = [$control->orders, $control->notchQ, $control->notchFloorHz, $control->notchTopHz];
        $idle = $control->idlePct;
        $outputs = \count($mixer);
        $drivenBy = $control->drives($craft, $set, $faults);
        $still = [0.0, 0.0, 0.0, 0.0];
        $rateState = array_fill(0, 3, array_fill(0, \count($ratePath), $still));
        $dState = array_fill(0, 3, array_fill(0, \count($dPath), $still));
        $commandState = array_fill(0, 3, $still);
        $notches = \count($orders) * $n;
        $nb0 = $nb1 = $na2 = array_fill(0, max(1, $notches), 0.0);
        $nx1 = $nx2 = $ny1 = $ny2 = array_fill(0, 3 * max(1, $notches), 0.0);
        $trackCount = $control->trackCount;
        $thin = max(1, (int) round($loopHz / 2000));
        $tracking = $control->trackers($loopHz / $thin);
        $trackStages = array_fill(0, 3, []);
        $trackState = array_fill(0, 3, array_fill(0, max(1, $trackCount), $still));
        foreach ($tracking as $axis => $track) {
            $trackStages[$axis] = $control->trackedAt($track->centres, $loopHz);
        }
        $integral = $before = $setBefore = $wanted = [0.0, 0.0, 0.0];
        $stickUs = [1500.0, 1500.0, 1500.0, 1000.0];
        $frameEvery = $loopHz / $craft->receiverHz;
        $nextFrame = $throttle = $asked = 0.0;
        $steering = $control->steering;
        $held = $lean = [0.0, 0.0, 0.0];

        // The craft, the air around it, and its pack.
        $body = Body::of($craft, $faults, $h);
        [$effect, $pushes, $lagUp, $lagDown] = [$body->effect, $body->pushes, $body->lagUp, $body->lagDown];
        $gyro = new Gyro($craft, $set, $faults, $places[Place::RearLeft->value] ?? null, $dt);
        $noise = new NoisePool($seed);
        $speed = $output = array_fill(0, $n, 0.0);
        $delayLine = array_fill(0, $n, array_fill(0, 3, 0.0));
        $rate = $wash = $washLow = $wind = [0.0, 0.0, 0.0];
        $damping = [1.2, 1.2, 2.0];
        $washLevel = $throttleBefore = $lift = $current = $lost = 0.0;
        $charge = 0.02;
        $volts = $craft->restVoltage($charge);
        $nominal = $craft->cells * 3.9;
        $loses = \in_array('lost_sync', $faults, true) ? $places[Place::RearLeft->value] ?? -1 : -1;
        $losesAt = (int) (0.62 * $steps);

        $every = max(1, (int) round($loopHz / $set->number('recorder.rate_hz', 2000)));
        $recorder = new FlightRecorder($stream, $head, $this->traces($trackCount), $every);
        $commandOf = array_flip($control->believed->places());
        $recorded = array_map(static fn (string $place): int => $commandOf[$place] ?? -1, $craft->frame->places());
        $end = FlightEnd::Flown;

        for ($step = 0; $step < $steps; ++$step) {
            if ($step >= $nextFrame) {
                $stickUs = $card->us[min((int) round($step / $frameEvery), \count($card->us) - 1)];
                $nextFrame += $frameEvery;
                for ($s = 0; $s < 3; ++$s) {
                    $held[$s] = $control->span[$s]->position($stickUs[$s], $control->deadBandUs);
                    $wanted[$s] = $control->feel[$s]->rate($held[$s]);
                }
                $asked = $throttle = 100 * $control->throttle->output(($control->span[3]->position($stickUs[3]) + 1) / 2);
            }
            if (null !== $steering && 0 === $step % 4) {
                $wanted = $steering->rates($held, $lean);
                $throttle = $steering->throttle($asked, $lean);
            }
            $noise->have(self::MOST_RANDOM);
            $measured = $gyro->read($rate, $speed, $lift, $noise);
            $random = $noise->values;
            $at = $noise->at;

            // ---- The firmware's own work begins. ----
            if ($notches > 0 && 0 === $step % 4) {
                $j = 0;
                foreach ($orders as $order) {
                    for ($i = 0; $i < $n; ++$i, ++$j) {
                        // Above what the loop can hold, the notch waits at its highest.
                        $centre = min($notchTop, max($notchFloor, ($order * $speed[$i] * $craft->maxRpm) / 60));
                        $w = 2 * \M_PI * $centre * $dt;
                        $alpha = sin($w) / (2 * $notchQ);
                        $inv = 1 / (1 + $alpha);
                        $nb0[$j] = $inv;
                        $nb1[$j] = -2 * cos($w) * $inv;
                        $na2[$j] = (1 - $alpha) * $inv;
                    }
                }
            }
            $filtered = [0.0, 0.0, 0.0];
            for ($axis = 0; $axis < 3; ++$axis) {
                $x = $measured[$axis];
                for ($j = 0, $k = $axis * $notches; $j < $notches; ++$j, ++$k) {
                    $b1 = $nb1[$j];
                    $y = $nb0[$j] * ($x + $nx2[$k]) + $b1 * ($nx1[$k] - $ny1[$k]) - $na2[$j] * $ny2[$k];
                    $nx2[$k] = $nx1[$k];
                    $nx1[$k] = $x;
                    $ny2[$k] = $ny1[$k];
                    $ny1[$k] = $y;
                    $x = $y;
                }
                if ($trackCount > 0) {
                    if (0 === $step % $thin && $tracking[$axis]->push($x)) {
                        $trackStages[$axis] = $control->trackedAt($tracking[$axis]->centres, $loopHz);
                    }
                    foreach ($trackStages[$axis] as $s => $f) {
                        [$x1, $x2, $y1, $y2] = $trackState[$axis][$s];
                        $y = $f->b0 * $x + $f->b1 * $x1 + $f->b2 * $x2 - $f->a1 * $y1 - $f->a2 * $y2;
                        $trackState[$axis][$s] = [$x, $x1, $y, $y1];
                        $x = $y;
                    }
                }
                foreach ($ratePath as $s => $f) {
                    [$x1, $x2, $y1, $y2] = $rateState[$axis][$s];
                    $y = $f->b0 * $x + $f->b1 * $x1 + $f->b2 * $x2 - $f->a1 * $y1 - $f->a2 * $y2;
                    $rateState[$axis][$s] = [$x, $x1, $y, $y1];
                    $x = $y;
                }
                $filtered[$axis] = $x;
            }
            $sag = $control->sagRise > 0 ? 1 + $control->sagRise * ($nominal / max($volts, 0.5 * $nominal) - 1) : 1.0;
            $gainScale = $sag * ($throttle > 50 ? 1 - ($control->fall * ($throttle - 50)) / 50 : 1.0);
            $tp = $ti = $td = $tf = $setpoint = $axisCommand = [0.0, 0.0, 0.0];
            for ($axis = 0; $axis < 3; ++$axis) {
                [$x1, $x2, $y1, $y2] = $commandState[$axis];
                $sp = $command->b0 * $wanted[$axis] + $command->b1 * $x1 + $command->b2 * $x2 - $command->a1 * $y1 - $command->a2 * $y2;
                $commandState[$axis] = [$wanted[$axis], $x1, $sp, $y1];
                $setpoint[$axis] = $sp;
                $error = $sp - $filtered[$axis];
                $d = ($before[$axis] - $filtered[$axis]) * $loopHz;
                $before[$axis] = $filtered[$axis];
                foreach ($dPath as $s => $f) {
                    [$x1, $x2, $y1, $y2] = $dState[$axis][$s];
                    $y = $f->b0 * $d + $f->b1 * $x1 + $f->b2 * $x2 - $f->a1 * $y1 - $f->a2 * $y2;
                    $dState[$axis][$s] = [$d, $x1, $y, $y1];
                    $d = $y;
                }
                $change = ($sp - $setBefore[$axis]) * $loopHz;
                $setBefore[$axis] = $sp;
                $gd = $kd[$axis];
                if ($addedD[$axis] > 0) {
                    $gd += $addedD[$axis] * min(1.0, max(abs($change) / 8000, abs($filtered[$axis]) / 500));
                }
                if ($throttle > 2) {
                    $integral[$axis] = max(-30.0, min(30.0, $integral[$axis] + $ki[$axis] * $error * $dt));
                }
                $tp[$axis] = $kp[$axis] * $error * $gainScale;
                $ti[$axis] = $integral[$axis];
                $td[$axis] = $gd * $d * $gainScale;
                $tf[$axis] = $kf[$axis] * $change;
                $axisCommand[$axis] = max(-60.0, min(60.0, $tp[$axis] + $ti[$axis] + $td[$axis] + $tf[$axis]));
            }
            // Mixing. With air mode the throttle gives way first; without, it is never raised.
            $low = \INF;
            $high = -\INF;
            $want = [];
            for ($i = 0; $i < $outputs; ++$i) {
                $v = $mixer[$i][0] * $axisCommand[0] + $mixer[$i][1] * $axisCommand[1] + $mixer[$i][2] * $axisCommand[2];
                $want[] = $v;
                $low = min($low, $v);
                $high = max($high, $v);
            }
            $room = 100 - $idle;
            $scale = $high - $low > $room ? $room / ($high - $low) : 1.0;
            $base = $idle + ($throttle * $room) / 100;
            if ($control->airMode) {
                $base = max($idle - $low * $scale, min(100 - $high * $scale, $base));
            } else {
                $base = min(100 - $high * $scale, $base);
            }
            $send = [];
            for ($i = 0; $i < $outputs; ++$i) {
                $send[] = max($idle, min(100.0, $base + $want[$i] * $scale));
            }
            // ---- The firmware's own work ends. ----

            for ($i = 0; $i < $n; ++$i) {
                $output[$i] = $drivenBy[$i] >= 0 && ($i !== $loses || $step < $losesAt) ? $send[$drivenBy[$i]] : 0.0;
            }
            $washLevel *= 1 - 3.0 * $dt;
            $drop = ($throttleBefore - $throttle) * $loopHz;
            $throttleBefore += ($throttle - $throttleBefore) * 20 * $dt;
            if ($drop > 8 * $loopHz) {
                $washLevel = min(1.0, $washLevel + 6 * $dt);
            }
            $push = $volts / $nominal;
            for ($axis = 0; $axis < 3; ++$axis) {
                // Air that is not still: slow gusts, and the craft's own wash between about 5 and 30 Hz.
                $wind[$axis] += (-0.8 * $wind[$axis] + 60 * $random[$at]) * $dt * 4;
                $washLow[$axis] += (900 * $random[$at + 1] * sqrt($loopHz / 2000) - $washLow[$axis]) * 190 * $dt;
                $wash[$axis] += ($washLow[$axis] - $wash[$axis]) * 31 * $dt;
                $at += 2;
            }
            $stir = 0.4 + 12 * $washLevel;
            for ($sub = 0; $sub < $subs; ++$sub) {
                $ax = $wind[0] + $stir * ($washLow[0] - $wash[0]) - $damping[0] * $rate[0];
                $ay = $wind[1] + $stir * ($washLow[1] - $wash[1]) - $damping[1] * $rate[1];
                $az = 0.4 * $wind[2] - $damping[2] * $rate[2];
                $lift = 0.0;
                for ($i = 0; $i < $n; ++$i) {
                    // Signal and ESC take three physical steps, then the rotor follows as a first-order lag.
                    $target = $delayLine[$i][2] * 0.01 * $push;
                    $delayLine[$i] = [$output[$i], $delayLine[$i][0], $delayLine[$i][1]];
                    $w = $speed[$i];
                    $w += ($target - $w) * ($target > $w ? $lagUp : $lagDown);
                    $speed[$i] = $w;
                    $t = $w * $w;
                    $lift += $t * $pushes[$i];
                    $e = $effect[$i];
                    $ax += $e[0] * $t;
                    $ay += $e[1] * $t;
                    $az += $e[2] * $t;
                }
                $rate[0] += $ax * $h;
                $rate[1] += $ay * $h;
                $rate[2] += $az * $h;
            }
            if (null !== $steering) {
                $lean = Steering::leaned($lean, $rate, $dt);
            }
            $sumCube = 0.0;
            for ($i = 0; $i < $n; ++$i) {
                $sumCube += $speed[$i] ** 3;
            }
            $current = 0.6 + ($craft->fullCurrentA * $sumCube) / $n;
            $charge += ($current * $dt) / 3600 / $craft->packAh;
            $volts += ($craft->restVoltage(min(1.0, $charge)) - $craft->packOhm * $current - $volts) * 40 * $dt;

            if ($recorder->isDue($step)) {
                $row = array_merge([$step * $dt, $throttle], $stickUs, $setpoint, $measured, $filtered, $tp, $ti, $td, $tf);
                for ($i = 0; $i < $n; ++$i) {
                    $row[] = $recorded[$i] >= 0 ? $send[$recorded[$i]] : 0.0;
                }
                for ($i = 0; $i < $n; ++$i) {
                    $row[] = $speed[$i] * $craft->maxRpm;
                }
                for ($t = 0; $t < $trackCount; ++$t) {
                    $row[] = $tracking[0]->centres[$t];
                }
                $row[] = 0.02 * $random[$at] + 0.002 * $gyro->shake[1];
                $row[] = 0.02 * $random[$at + 1] + 0.002 * $gyro->shake[0];
                $row[] = (-$lift * $craft->thrustN) / ($craft->massKg * 9.81) + 0.03 * $random[$at + 2];
                $row[] = $volts * $craft->dividerFault;
                $row[] = $current;
                if ($recorder->record($row) && !$progress(($step + 1) / $steps)) {
                    return FlightEnd::Stopped;
                }
            }
            $noise->at = $at + 3;
            $astray = max(abs($rate[0] - $setpoint[0]), abs($rate[1] - $setpoint[1]), abs($rate[2] - $setpoint[2]));
            $lost = $astray > self::LOST_DPS ? $lost + $dt : 0.0;
            if ($lost > self::LOST_S) {
                $end = FlightEnd::Crashed;
                break;
            }
        }
        $recorder->finish();
        $progress(1.0);

        return $end;
    }
}
