<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight;

use Ortholex\Bench\Flight\Airframe\Body;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\Controller\FilterBank;
use Ortholex\Bench\Flight\Controller\FlightControl;
use Ortholex\Bench\Flight\Controller\Mixing;
use Ortholex\Bench\Flight\Controller\RateLoop;
use Ortholex\Bench\Flight\Modes\Commands;
use Ortholex\Bench\Flight\Modes\HeardCommands;
use Ortholex\Bench\Flight\Modes\ScriptedCommands;
use Ortholex\Bench\Flight\Motors\Rotors;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Pilot\Levers;
use Ortholex\Bench\Flight\Pilot\Pilot;
use Ortholex\Bench\Flight\Pilot\Uplink;
use Ortholex\Bench\Flight\Recording\FlightRecorder;
use Ortholex\Bench\Flight\Surroundings\Wind;
use Ortholex\Core\Craft\ArmedBy;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\World\FlightEnd;
use Ortholex\Core\World\FlownPath;

/**
 * A closed-loop flight: pilot, receiver, the firmware's own filters, gains and mixer, motors, a rigid body, air and ground.
 *
 * The firmware part runs exactly what the settings say, so a wrong setting flies wrong. Rates in deg/s, outputs in %; one control step
 * per loop period, two or more physical steps within it. Its parts stand in folders of their own and are asked once a step; within
 * each, plain arrays (measured: objects for every figure made it six times slower).
 *
 * A card that gathers logs is flown in a box: its pilot keeps it at its height and place, which no log shows, and only what turns the
 * craft is reckoned, until it is out of hand. From then on, and in a flight of its own (Sortie) from the first moment, it flies in the
 * world: drag, wind, ground.
 */
final readonly class FlightSimulator
{
    /** Rotation nobody asked for, deg/s, and for how long, after which a craft is out of its pilot's hands; s. */
    private const LOST_DPS = 500.0;

    private const LOST_S = 0.06;

    /** At this height cards are flown, m. */
    private const BOX_M = 25.0;

    /** Meeting the ground faster than this ends a flight, m/s. */

    /** Motors at rest and the craft still for so long end it too, s. */
    private const DONE_S = 1.0;

    /** What the electronics take, A. */
    private const OWN_A = 0.6;

    /** Steps between two looks at levers, lean and link. */
    private const LOOK_EVERY = 4;

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

    /** What a log holds besides where the board knows its position. */
    private const OF_PLACE = [
        'position_north_m',
        'position_east_m',
        'position_height_m',
        'ground_speed_ms',
        'attitude_roll_deg',
        'attitude_pitch_deg',
        'attitude_heading_deg',
        'satellites',
    ];

    public function __construct(private CraftPhysics $craft)
    {
    }

    /** @return list<string> the traces a flight of this craft records, in order */
    public function traces(int $trackingNotches, bool $position = false): array
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

        return [...$names, 'accel_x_g', 'accel_y_g', 'accel_z_g', 'battery_v', 'current_a', ...$position ? self::OF_PLACE : []];
    }

    /** Throttle at which the craft hovers, 0..1. */
    public function hoverThrottle(): float
    {
        return sqrt(($this->craft->massKg * 9.81) / (\count($this->craft->frame->motors) * $this->craft->thrustN));
    }

    /**
     * Flies, and lets the recorder write.
     *
     * @param SettingSet            $set      the board's settings under current names
     * @param list<string>          $faults   loose_arm, bent_prop, lost_sync, backward:PLACE for a motor that turns against its
     *                                        prop, dead:PLACE for one that does not turn
     * @param \Closure(float): bool $progress   told the share flown; false stops the flight
     * @param float                 $chargeUsed share of the pack
     */
    public function fly(
        FlightCard $card,
        SettingSet $set,
        float $seconds,
        int $seed,
        array $faults,
        FlightRecorder $recorder,
        \Closure $progress,
        float $chargeUsed = 0.02,
    ): FlightEnd {
        $loopHz = $set->loopHz();
        $control = FlightControl::of($set, $loopHz, $card->on);
        $commands = new ScriptedCommands($control, $card->us, $loopHz / $this->craft->receiverHz);
        $flight = new Flight($this->craft, $set, $control, $seconds, $seed, $faults, null, $chargeUsed);
        $flight->motion->at[2] = -self::BOX_M;

        return $this->run($flight, $commands, static fn (int $step) => $commands->hear($step), $recorder, $progress);
    }

    /**
     * Flies in the open world, with eyes and thumbs.
     *
     * @param list<string>          $faults
     * @param \Closure(float): bool $progress
     */
    public function goOut(
        Sortie $sortie,
        SettingSet $set,
        float $seconds,
        int $seed,
        array $faults,
        FlightRecorder $recorder,
        \Closure $progress,
    ): FlightEnd {
        $levers = Levers::of($sortie->road, $set, $sortie->wanted);
        $control = FlightControl::of(
            $set,
            $set->loopHz(),
            array_values(array_filter($levers->on, static fn (Action $a): bool => Action::TestFeel === $a || Action::GainSetB === $a)),
        );
        $flight = new Flight($this->craft, $set, $control, $seconds, $seed, $faults, $sortie);
        $aloft = $sortie->fromHeightM > 0;
        $angle = \in_array(Action::Angle, $levers->on, true);
        $pilot = new Pilot(
            $sortie->plan,
            $control->feel,
            $angle ? $set->number('angle.full_tilt_deg', 50) : null,
            max(0.05, (100 * $this->hoverThrottle() - $control->idlePct) / ($control->topPct - $control->idlePct)),
            $aloft ? 0.0 : 2.0,
        );
        $uplink = new Uplink($pilot, $levers, $sortie->road, $sortie->off, ArmedBy::Stick === ArmedBy::in($set), $aloft);
        $commands = new HeardCommands($control, $set, $aloft, $flight->bearings);
        $every = $set->loopHz() * $sortie->road->kind()->interval();
        $next = 0.0;
        $hear = static function (int $step) use ($flight, $commands, $uplink, $every, &$next): void {
            $now = $step * $flight->dt;
            if ($step >= $next) {
                $next += $every;
                $frame = $uplink->frame($now, $flight->motion);
                if (null !== $frame) {
                    $commands->frame($frame[0], $frame[1], $now);
                }
            }
            if (0 === $step % self::LOOK_EVERY) {
                $flight->look($commands, $now, self::LOOK_EVERY * $flight->dt);
            }
        };
        try {
            return $this->run($flight, $commands, $hear, $recorder, $progress);
        } finally {
            if (null !== $sortie->track) {
                $sortie->track->home = $flight->bearings?->lastHome;
                $sortie->track->offS = $uplink->offS ?? -1.0;
                $sortie->track->noticedS = $commands->noticedS ?? -1.0;
                $sortie->track->impactMs = $flight->motion->impact;
                $sortie->track->usedAh = ($flight->pack->charge - $sortie->chargeUsed) * $this->craft->packAh;
            }
        }
    }

    /**
     * Long because it is the one loop of a flight, a step after the other, with each part asked by its name.
     *
     * @param \Closure(int): void   $hear     what happens at a step before the loop runs
     * @param \Closure(float): bool $progress
     */
    private function run(Flight $flight, Commands $commands, \Closure $hear, FlightRecorder $recorder, \Closure $progress): FlightEnd
    {
        $control = $flight->control;
        [$loopHz, $dt, $n, $steps] = [$flight->loopHz, $flight->dt, $flight->motors, $flight->steps];
        $subs = max(1, (int) ceil(self::PHYSICS_HZ / $loopHz));
        $h = $dt / $subs;
        [$filters, $loop, $mixing] = [
            new FilterBank($control, $loopHz, $n, $this->craft->maxRpm),
            new RateLoop($control, $loopHz),
            new Mixing($control),
        ];
        [$motion, $air, $pack, $gyro, $noise] = [$flight->motion, $flight->air, $flight->pack, $flight->gyro, $flight->noise];
        $rotors = $flight->rotors($h);
        $drivenBy = $flight->drivenBy;
        $rate = [0.0, 0.0, 0.0];
        $output = array_fill(0, $n, 0.0);
        $lost = $done = 0.0;
        $free = null !== $flight->sortie;
        $every = max(1, (int) round($loopHz / $flight->set->number('recorder.rate_hz', 2000)));
        $recorder->begin($this->traces($control->trackCount, null !== $flight->bearings), $loopHz / $every);
        $end = FlightEnd::Flown;

        for ($step = 0; $step < $steps; ++$step) {
            $hear($step);
            if (!$free && 0 === $step % self::LOOK_EVERY) {
                $commands->steer($motion->lean());
            }
            $noise->have(self::MOST_RANDOM);
            $measured = $gyro->read($rate, $rotors->speed, $rotors->lift, $noise);

            // ---- The firmware's own work begins. ----
            $filtered = $filters->filter($step, $measured, $rotors->speed);
            $about = $loop->command($commands->wanted, $filtered, $commands->throttle, $pack->volts, $flight->nominal);
            if (!$commands->armed) {
                $loop->rest();
                $send = $flight->stopped;
            } elseif ($commands->righting) {
                $send = $flight->righting($commands->thumbs());
            } else {
                $send = $mixing->outputs($about, $commands->throttle, $control->idlePct, $commands->airMode);
            }
            // ---- The firmware's own work ends. ----

            for ($i = 0; $i < $n; ++$i) {
                $output[$i] = $drivenBy[$i] >= 0 && ($i !== $flight->loses || $step < $flight->losesAt) ? $send[$drivenBy[$i]] : 0.0;
            }
            $air->stir($commands->throttle, $noise);
            $push = $pack->volts / $flight->nominal;
            for ($sub = 0; $sub < $subs; ++$sub) {
                [$ax, $ay, $az] = $air->turns($rate);
                [$ax, $ay, $az] = $rotors->turn($output, $push, $ax, $ay, $az);
                $rate[0] += $ax * $h;
                $rate[1] += $ay * $h;
                $rate[2] += $az * $h;
            }
            if ($free) {
                $flight->wind->step($dt);
                $rate = $motion->fly($rate, $rotors->lift * $this->craft->thrustN, $flight->wind->now, $dt);
                $flight->see($step * $dt, $commands);
            } else {
                $motion->turn($rate, $dt);
            }
            $current = self::OWN_A + $rotors->current($this->craft->fullCurrentA);
            $pack->give($current, $dt);

            if (0 === $step % $every) {
                $row = array_merge(
                    [$step * $dt, $commands->throttle],
                    $commands->stickUs,
                    $loop->setpoint,
                    $measured,
                    $filtered,
                    $loop->p,
                    $loop->i,
                    $loop->d,
                    $loop->ff,
                );
                array_push($row, ...$this->felt($flight, $rotors, $send, $filters->tracked(), $free, $current));
                if ($recorder->record($row) && !$progress(($step + 1) / $steps)) {
                    return FlightEnd::Stopped;
                }
            }
            $noise->at += 3;
            $setpoint = $loop->setpoint;
            $astray = max(abs($rate[0] - $setpoint[0]), abs($rate[1] - $setpoint[1]), abs($rate[2] - $setpoint[2]));
            $lost = $astray > self::LOST_DPS ? $lost + $dt : 0.0;
            $free = $free || $lost > self::LOST_S;
            $done = $flight->isAtRest($commands, $rate) ? $done + $dt : 0.0;
            if ($motion->impact > FlownPath::BREAKS_MS || $done > self::DONE_S) {
                $end = $motion->impact > FlownPath::BREAKS_MS ? FlightEnd::Crashed : FlightEnd::Flown;
                $flight->see($step * $dt, $commands, true);
                break;
            }
        }
        $recorder->finish();
        $progress(1.0);

        return $end;
    }

    /**
     * What the log shows of motors and sensors.
     *
     * @param list<float>       $send    outputs, %
     * @param array<int, float> $tracked Hz
     * @param float             $current A
     *
     * @return list<float>
     */
    private function felt(Flight $flight, Rotors $rotors, array $send, array $tracked, bool $free, float $current): array
    {
        $row = [];
        foreach ($flight->recorded as $output) {
            $row[] = $output >= 0 ? abs($send[$output]) : 0.0;
        }
        foreach ($rotors->speed as $speed) {
            $row[] = abs($speed) * $this->craft->maxRpm;
        }
        foreach ($tracked as $hz) {
            $row[] = $hz;
        }
        $felt = $free ? $flight->motion->felt : [0.0, 0.0, -$flight->liftG($rotors->lift)];
        [$random, $at, $shake] = [$flight->noise->values, $flight->noise->at, $flight->gyro->shake];
        $row[] = $felt[0] + 0.02 * $random[$at] + 0.002 * $shake[1];
        $row[] = $felt[1] + 0.02 * $random[$at + 1] + 0.002 * $shake[0];
        $row[] = $felt[2] + 0.03 * $random[$at + 2];
        $row[] = $flight->pack->volts * $flight->divider;
        $row[] = $current * $flight->shunt;

        return null === $flight->bearings ? $row : [...$row, ...$flight->place($flight->bearings)];
    }
}
