<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\FlightLog\LogWriter;
use Ortholex\Core\Radio\ChannelSpan;
use Ortholex\Core\Signal\FilterStage;

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
    private const ROWS_PER_WRITE = 2000;

    public function __construct(private CraftPhysics $craft)
    {
    }

    /** @return list<string> the traces a flight of this craft records, in order */
    public function traces(int $trackingNotches): array
    {
        $names = ['throttle_pct', 'stick_roll_us', 'stick_pitch_us', 'stick_yaw_us', 'stick_throttle_us'];
        foreach (
            ['setpoint_%s_dps', 'rate_measured_%s_dps', 'rate_filtered_%s_dps', 'term_p_%s', 'term_i_%s', 'term_d_%s', 'term_ff_%s'] as $pattern
        ) {
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
     * @param SettingSet            $set      the board's settings under current names
     * @param list<string>                         $faults   loose_arm, bent_prop, lost_sync, backward:PLACE for a motor that turns against its prop, dead:PLACE for one that does not turn
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
        $num = $set->number(...);
        $loopHz = $set->loopHz();
        $dt = 1.0 / $loopHz;
        $subs = max(1, (int) ceil(self::PHYSICS_HZ / $loopHz));
        $h = $dt / $subs;
        $recordEvery = max(1, (int) round($loopHz / $set->number('recorder.rate_hz', 2000)));

        $motors = $craft->frame->motors;
        $n = \count($motors);
        // The firmware mixes for the frame its settings describe, whatever the craft is.
        $believedFrame = Airframe::of($set);
        $mixer = Mixer::of($believedFrame)->shares;
        $outputs = \count($believedFrame->motors);
        // The firmware sends a place's output to the pad its setting names; the motor on that pad gets it.
        $drivenBy = array_fill(0, $n, -1);
        $placeIndex = array_flip($craft->frame->places());
        $commandIndex = array_flip($believedFrame->places());
        foreach ($craft->wiredPads as $pad => $place) {
            $drives = $set->text("pad.$pad.drives", 'none');
            if (isset($placeIndex[$place]) && !\in_array("dead:$place", $faults, true)) {
                $drivenBy[$placeIndex[$place]] = $commandIndex[$drives] ?? -1;
            }
        }
        $recorded = array_map(static fn (string $place): int => $commandIndex[$place] ?? -1, $craft->frame->places());
        $imbalance = $craft->imbalance;
        if (\in_array('bent_prop', $faults, true)) {
            $imbalance[$placeIndex['rear_left'] ?? 0] *= 6;
        }

        $feel = $span = [];
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $feel[] = Feel::of(
                $num("feel.$axis.centre_dps", 150),
                $num("feel.$axis.half_stick_dps", 230),
                $num("feel.$axis.full_stick_dps", 600),
            );
        }
        foreach (['roll', 'pitch', 'yaw', 'throttle'] as $channel) {
            $span[] = ChannelSpan::of(
                $num("channel.$channel.low_us", 1000),
                $num("channel.$channel.middle_us", 1500),
                $num("channel.$channel.high_us", 2000),
                true === ($set["channel.$channel.reversed"] ?? false),
            );
        }
        $deadBand = $num('channel.dead_band_us', 2);

        // Gains: P % per 100 deg/s, I % per 100 deg, D and feed-forward % per 1000 deg/s².
        $kp = $ki = $kd = $kf = $addedD = [];
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $kp[] = $num("gain.$axis.p", 25) / 100;
            $ki[] = $num("gain.$axis.i", 80) / 100;
            $kd[] = $num("gain.$axis.d", 2) / 1000;
            $kf[] = $num("gain.$axis.ff", 0) / 1000;
            $addedD[] = $num("gain.$axis.added_d", 0) / 1000;
        }
        $fall = $num('gain.throttle_fall_pct', 0) / 100;
        $sagRise = $num('gain.sag_rise_pct', 0) / 100;
        $idle = true === ($set['motors.still_when_armed'] ?? false) ? 0.0 : $num('motors.idle_pct', 5.5);
        $airMode = true === ($set['motors.air_mode'] ?? true);

        $filters = RateFilters::of($set, $loopHz);
        $ratePath = $filters->ratePath->stages;
        $dPath = $filters->dPath->stages;
        $rateState = $dState = [[], [], []];
        foreach ([0, 1, 2] as $axis) {
            foreach (array_keys($ratePath) as $s) {
                $rateState[$axis][$s] = [0.0, 0.0, 0.0, 0.0];
            }
            foreach (array_keys($dPath) as $s) {
                $dState[$axis][$s] = [0.0, 0.0, 0.0, 0.0];
            }
        }
        $command = FilterStage::secondOrder(min($num('command_low_pass.cutoff_hz', 40), RateFilters::highestHz($loopHz)), $loopHz);
        $commandState = array_fill(0, 3, [0.0, 0.0, 0.0, 0.0]);
        $orders = RateFilters::orders($set);
        $notchQ = $num('notch.motor.width_q', 5);
        $notchFloor = $num('notch.motor.floor_hz', 80);
        $notchTop = RateFilters::highestHz($loopHz);
        $notches = \count($orders) * $n;
        $nb0 = $nb1 = $na2 = array_fill(0, max(1, $notches), 0.0);
        $nx1 = $nx2 = $ny1 = $ny2 = array_fill(0, 3 * max(1, $notches), 0.0);
        $tracking = [];
        $trackCount = (int) $num('notch.tracking.count', 0);
        $thin = max(1, (int) round($loopHz / 2000));
        for ($axis = 0; $trackCount > 0 && $axis < 3; ++$axis) {
            $tracking[] = new TrackingNotches(
                $trackCount,
                $num('notch.tracking.low_hz', 100),
                min($num('notch.tracking.high_hz', 500), RateFilters::highestHz($loopHz)),
                $loopHz / $thin,
            );
        }
        $trackStages = array_fill(0, 3, []);
        $trackState = array_fill(0, 3, array_fill(0, max(1, $trackCount), [0.0, 0.0, 0.0, 0.0]));
        foreach ($tracking as $axis => $track) {
            $trackStages[$axis] = self::notchesAt($track->centres, $num('notch.tracking.width_q', 4), $loopHz);
        }

        // The gyro sits on a board that lies as it was mounted and reports through the mounting setting.
        $really = Rotation::degrees(...$craft->mountedDeg);
        $believed = Rotation::degrees($num('mounting.roll_deg', 0), $num('mounting.pitch_deg', 0), $num('mounting.yaw_deg', 0));
        $straight =
            abs($num('mounting.roll_deg', 0) - $craft->mountedDeg[0]) +
                abs($num('mounting.pitch_deg', 0) - $craft->mountedDeg[1]) +
                abs($num('mounting.yaw_deg', 0) - $craft->mountedDeg[2]) <
            1e-6;

        // Physics.
        $speed = array_fill(0, $n, 0.0);
        $phase = array_fill(0, $n, 0.0);
        $delayLine = array_fill(0, $n, array_fill(0, 3, 0.0));
        $output = array_fill(0, $n, 0.0);
        $effect = $pushes = [];
        foreach ($motors as $i => $m) {
            $phase[$i] = 1.7 * $i;
            // A prop turned backward pushes down, weakly: its blades meet the air with their hollow side.
            $backward = \in_array("backward:$m->place", $faults, true);
            $pushes[$i] = $backward ? -0.55 : 1.0;
            $effect[$i] = [
                rad2deg((-$m->y * $craft->thrustN) / $craft->inertia[0]) * $pushes[$i],
                rad2deg(($m->x * $craft->thrustN) / $craft->inertia[1]) * $pushes[$i],
                rad2deg((-$m->spin * 0.016 * $craft->thrustN) / $craft->inertia[2]) * ($backward ? -0.7 : 1.0),
            ];
        }
        $lagUp = 1 - exp(-$h / $craft->motorLagS);
        $lagDown = 1 - exp(-$h / ($craft->motorLagS * 1.25));
        $resonances = $craft->resonances;
        if (\in_array('loose_arm', $faults, true)) {
            $resonances[] = ['axis' => 1, 'hz' => 187.0, 'damping' => 0.015, 'gain' => 1.6];
            $resonances[] = ['axis' => 0, 'hz' => 187.0, 'damping' => 0.015, 'gain' => 0.5];
        }
        $ra1 = $ra2 = $rg = $raxis = $rs1 = $rs2 = [];
        foreach ($resonances as $r) {
            $w = 2 * \M_PI * $r['hz'] * $dt;
            $pole = exp(-$r['damping'] * $w);
            $raxis[] = $r['axis'];
            $ra1[] = 2 * $pole * cos($w);
            $ra2[] = -$pole * $pole;
            $rg[] = $r['gain'] * 2 * $r['damping'] * sin($w);
            $rs1[] = $rs2[] = 0.0;
        }
        $resCount = \count($raxis);
        $rate = [0.0, 0.0, 0.0];
        $damping = [1.2, 1.2, 2.0];
        $noise = new Noise($seed);
        $random = [];
        $at = 0;
        $wash = [0.0, 0.0, 0.0];
        $washLow = [0.0, 0.0, 0.0];
        $wind = [0.0, 0.0, 0.0];
        $washLevel = 0.0;
        $throttleBefore = 0.0;
        $charge = 0.02;
        $volts = $craft->restVoltage($charge);
        $nominal = $craft->cells * 3.9;
        $current = 0.0;
        $lift = 0.0;

        $integral = $before = [0.0, 0.0, 0.0];
        $setBefore = [0.0, 0.0, 0.0];
        $steps = (int) round($seconds * $loopHz);
        $frameEvery = $loopHz / $craft->receiverHz;
        $nextFrame = 0.0;
        $stickUs = [1500.0, 1500.0, 1500.0, 1000.0];
        $wanted = [0.0, 0.0, 0.0];
        $throttle = 0.0;
        $names = $this->traces($trackCount);
        fwrite($stream, LogWriter::head($head, $names));
        $format = LogWriter::rowFormat($names);
        $text = '';
        $rows = 0;
        $lost = 0.0;
        $end = FlightEnd::Flown;

        $loses = \in_array('lost_sync', $faults, true) ? $placeIndex['rear_left'] ?? -1 : -1;
        $losesAt = (int) (0.62 * $steps);

        for ($step = 0; $step < $steps; ++$step) {
            if ($step >= $nextFrame) {
                $frame = $card->frames[min((int) round($step / $frameEvery), \count($card->frames) - 1)];
                $nextFrame += $frameEvery;
                for ($s = 0; $s < 4; ++$s) {
                    $stickUs[$s] = round(3 === $s ? 1000 + 1000 * $frame[3] : 1500 + 500 * $frame[$s]);
                    if ($s < 3) {
                        $wanted[$s] = $feel[$s]->rate($span[$s]->position($stickUs[$s], $deadBand));
                    }
                }
                $throttle = 50 * ($span[3]->position($stickUs[3]) + 1);
            }
            if ($at + 32 > \count($random)) {
                $random = $noise->block(8192);
                $at = 0;
            }

            // Vibration as the gyro feels it: each prop at its speed and twice it, and what the frame makes of it.
            $vx = $vy = $vz = 0.0;
            for ($i = 0; $i < $n; ++$i) {
                $w = $speed[$i];
                $hz = ($w * $craft->maxRpm) / 60;
                $phase[$i] += 2 * \M_PI * $hz * $dt;
                if ($phase[$i] > 6.283185307179586) {
                    $phase[$i] -= 6.283185307179586;
                }
                // The gyro's own analogue low-pass softens what lies near half its rate.
                $soft = 1 / (1 + ($hz / 450) ** 2);
                $a = $imbalance[$i] * $w * $w * $soft;
                $p = $phase[$i];
                $one = $a * sin($p);
                $two = 0.35 * $a * sin(2 * $p + 0.8);
                $vx += $one + $two;
                $vy += $a * sin($p + 1.3 + $i) + $two;
                $vz += 0.3 * $one;
            }
            $shake = [$vx, $vy, $vz];
            for ($r = 0; $r < $resCount; ++$r) {
                $axis = $raxis[$r];
                $drive = $shake[$axis] * 6 + $lift * 4.0 * $random[$at + $r];
                $x = $ra1[$r] * $rs1[$r] + $ra2[$r] * $rs2[$r] + $rg[$r] * $drive;
                $rs2[$r] = $rs1[$r];
                $rs1[$r] = $x;
                $shake[$axis] += $x;
            }
            $at += $resCount;

            $gyro = $rate;
            if (!$straight) {
                $gyro = $believed->apply($really->undo($rate));
            }
            // A coarse but real resolution: 2000 deg/s over 15 bits.
            $m0 = round(($gyro[0] + $shake[0] + $craft->gyroNoiseDps * $random[$at]) * 16.4) / 16.4;
            $m1 = round(($gyro[1] + $shake[1] + $craft->gyroNoiseDps * $random[$at + 1]) * 16.4) / 16.4;
            $m2 = round(($gyro[2] + $shake[2] + $craft->gyroNoiseDps * $random[$at + 2]) * 16.4) / 16.4;
            $at += 3;
            $measured = [$m0, $m1, $m2];

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
                        $trackStages[$axis] = self::notchesAt($tracking[$axis]->centres, $num('notch.tracking.width_q', 4), $loopHz);
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
            $sag = $sagRise > 0 ? 1 + $sagRise * ($nominal / max($volts, 0.5 * $nominal) - 1) : 1.0;
            $gainScale = $sag * ($throttle > 50 ? 1 - ($fall * ($throttle - 50)) / 50 : 1.0);
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
            if ($airMode) {
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
            $sumCube = 0.0;
            for ($i = 0; $i < $n; ++$i) {
                $sumCube += $speed[$i] ** 3;
            }
            $current = 0.6 + ($craft->fullCurrentA * $sumCube) / $n;
            $charge += ($current * $dt) / 3600 / $craft->packAh;
            $volts += ($craft->restVoltage(min(1.0, $charge)) - $craft->packOhm * $current - $volts) * 40 * $dt;

            if (0 === $step % $recordEvery) {
                $row = [
                    $step * $dt,
                    $throttle,
                    $stickUs[0],
                    $stickUs[1],
                    $stickUs[2],
                    $stickUs[3],
                    $setpoint[0],
                    $setpoint[1],
                    $setpoint[2],
                    $m0,
                    $m1,
                    $m2,
                    $filtered[0],
                    $filtered[1],
                    $filtered[2],
                    $tp[0],
                    $tp[1],
                    $tp[2],
                    $ti[0],
                    $ti[1],
                    $ti[2],
                    $td[0],
                    $td[1],
                    $td[2],
                    $tf[0],
                    $tf[1],
                    $tf[2],
                ];
                for ($i = 0; $i < $n; ++$i) {
                    $row[] = $recorded[$i] >= 0 ? $send[$recorded[$i]] : 0.0;
                }
                for ($i = 0; $i < $n; ++$i) {
                    $row[] = $speed[$i] * $craft->maxRpm;
                }
                for ($t = 0; $t < $trackCount; ++$t) {
                    $row[] = $tracking[0]->centres[$t];
                }
                $row[] = 0.02 * $random[$at] + 0.002 * $shake[1];
                $row[] = 0.02 * $random[$at + 1] + 0.002 * $shake[0];
                $row[] = (-$lift * $craft->thrustN) / ($craft->massKg * 9.81) + 0.03 * $random[$at + 2];
                $row[] = $volts * $craft->dividerFault;
                $row[] = $current;
                $text .= vsprintf($format, $row);
                if (0 === ++$rows % self::ROWS_PER_WRITE) {
                    fwrite($stream, $text);
                    $text = '';
                    if (!$progress(($step + 1) / $steps)) {
                        return FlightEnd::Stopped;
                    }
                }
            }
            $at += 3;
            $astray = max(abs($rate[0] - $setpoint[0]), abs($rate[1] - $setpoint[1]), abs($rate[2] - $setpoint[2]));
            $lost = $astray > self::LOST_DPS ? $lost + $dt : 0.0;
            if ($lost > self::LOST_S) {
                $end = FlightEnd::Crashed;
                break;
            }
        }
        fwrite($stream, $text);
        $progress(1.0);

        return $end;
    }

    /**
     * @param array<int, float> $centres
     *
     * @return list<FilterStage>
     */
    private static function notchesAt(array $centres, float $q, float $rateHz): array
    {
        return array_values(
            array_map(
                static fn (float $hz): FilterStage => FilterStage::notch(min($hz, RateFilters::highestHz($rateHz)), $q, $rateHz),
                $centres,
            ),
        );
    }
}
