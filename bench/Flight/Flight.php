<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight;

use Ortholex\Bench\Compass\Needle;
use Ortholex\Bench\Flight\Airframe\Body;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\Airframe\Feet;
use Ortholex\Bench\Flight\Controller\FlightControl;
use Ortholex\Bench\Flight\Modes\Commands;
use Ortholex\Bench\Flight\Modes\HeardCommands;
use Ortholex\Bench\Flight\Motors\Pack;
use Ortholex\Bench\Flight\Motors\Rotors;
use Ortholex\Bench\Flight\Position\Bearings;
use Ortholex\Bench\Flight\Position\CompassHeading;
use Ortholex\Bench\Flight\Position\PositionReceiver;
use Ortholex\Bench\Flight\Sensors\Barometer;
use Ortholex\Bench\Flight\Sensors\Gyro;
use Ortholex\Bench\Flight\Sensors\NoisePool;
use Ortholex\Bench\Flight\Surroundings\Air;
use Ortholex\Bench\Flight\Surroundings\Motion;
use Ortholex\Bench\Flight\Surroundings\Wind;
use Ortholex\Bench\Sky\Marsh;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;

/** All that one flight consists of, put together before it begins. */
final class Flight
{
    /** Share of a flight after which a motor that is to lose its sync loses it. */
    private const LOSES_AT = 0.62;

    /** Motors are rated at so much a cell, V. */
    private const RATED_CELL_V = 3.9;

    /** Wind moves what only lies there, a little. */
    private const REST_MS = 0.25;

    private const REST_DPS = 5.0;
    private const G = 9.81;

    public readonly float $loopHz;
    public readonly float $dt;
    public readonly int $motors;
    public readonly int $steps;
    public readonly float $nominal;

    /** Index of the motor that loses its sync; −1 for none. */
    public readonly int $loses;

    public readonly int $losesAt;

    /** @var list<int> which output each motor gets; −1 for none */
    public readonly array $drivenBy;

    /** @var list<float> outputs of a craft that is disarmed */
    public readonly array $stopped;

    /** @var list<int> by motor: the output that the log shows for its place; −1 for none */
    public readonly array $recorded;

    /** What the board takes a volt and an ampere for. */
    public readonly float $divider;

    public readonly float $shunt;
    public readonly Motion $motion;
    public readonly Air $air;
    public readonly Pack $pack;
    public readonly Gyro $gyro;
    public readonly NoisePool $noise;
    public readonly Wind $wind;
    public readonly ?Bearings $bearings;
    private readonly Barometer $barometer;

    /** @param list<string> $faults */
    public function __construct(
        private readonly CraftPhysics $craft,
        public readonly SettingSet $set,
        public readonly FlightControl $control,
        float $seconds,
        int $seed,
        private readonly array $faults,
        public readonly ?Sortie $sortie = null,
        float $chargeUsed = 0.02,
    ) {
        $places = array_flip($craft->frame->places());
        $this->loopHz = $set->loopHz();
        $this->dt = 1.0 / $this->loopHz;
        $this->motors = \count($craft->frame->motors);
        $this->steps = (int) round($seconds * $this->loopHz);
        $this->nominal = $craft->cells * self::RATED_CELL_V;
        $this->loses = \in_array('lost_sync', $faults, true) ? $places[Place::RearLeft->value] ?? -1 : -1;
        $this->losesAt = (int) (self::LOSES_AT * $this->steps);
        $this->drivenBy = $control->drives($craft, $set, $faults);
        $this->stopped = array_values(array_fill(0, \count($control->mixer), 0.0));
        $commandOf = array_flip($control->believed->places());
        $this->recorded = array_map(static fn (string $place): int => $commandOf[$place] ?? -1, $craft->frame->places());
        $this->divider = ($craft->dividerFault * $set->number('pack.divider_scale', CraftPhysics::DIVIDER)) / CraftPhysics::DIVIDER;
        $this->shunt = ($craft->currentFault * CraftPhysics::SHUNT) / $set->number('pack.current_scale_mv_per_a', CraftPhysics::SHUNT);
        $this->motion = new Motion($craft, Feet::of($craft));
        $this->air = new Air($this->loopHz);
        $this->pack = new Pack($craft, $sortie->chargeUsed ?? $chargeUsed);
        $this->gyro = new Gyro($craft, $set, $faults, $places[Place::RearLeft->value] ?? null, $this->dt);
        $this->noise = new NoisePool($seed);
        $this->wind = $sortie->wind ?? Wind::calm();
        $this->barometer = new Barometer($seed + 31);
        if (null !== $sortie) {
            $sortie->overturned ? $this->motion->lieOver() : $this->motion->stand();
            if ($sortie->fromHeightM > 0) {
                $this->motion->at = [$sortie->fromM[0], $sortie->fromM[1], -$sortie->fromHeightM];
            }
        }
        $this->bearings =
            null === $sortie?->positioning
                ? null
                : new Bearings(
                    new PositionReceiver($sortie->positioning),
                    CompassHeading::of(Needle::of($craft->compass), Marsh::earth(), $set),
                    $set,
                );
        if (null !== $this->bearings && true === $sortie?->homeIsSet) {
            $this->bearings->home = [0.0, 0.0];
        }
    }

    /** @param float $h physical step, s */
    public function rotors(float $h): Rotors
    {
        $rotors = new Rotors(Body::of($this->craft, $this->faults, $h), $this->motors);
        if (($this->sortie->fromHeightM ?? 0.0) > 0) {
            $rotors->spin(sqrt(($this->craft->massKg * self::G) / ($this->motors * $this->craft->thrustN)));
        }

        return $rotors;
    }

    /** @param float $lift of one motor at full */
    public function liftG(float $lift): float
    {
        return ($lift * $this->craft->thrustN) / ($this->craft->massKg * self::G);
    }

    /** The firmware looks at its sensors, and at what it was told. */
    public function look(HeardCommands $commands, float $now, float $dt): void
    {
        $m = $this->motion;
        $this->barometer->look($m->height(), -$m->speed[2], $dt);
        $this->bearings?->look($now, $dt, $m, $commands->throttle, $commands->armed);
        $commands->look(
            $now,
            $dt,
            $m->lean(),
            $m->tilt(),
            $m->turning,
            $this->barometer->height,
            $this->barometer->climb,
            $this->pack->volts / $this->craft->cells,
        );
    }

    /** @return list<float> what its log shows of where it is; nothing known is nought, with no satellites */
    public function place(Bearings $bearings): array
    {
        $lean = $this->motion->lean();
        $receiver = $bearings->receiver;

        return [
            $receiver->at[0] ?? 0.0,
            $receiver->at[1] ?? 0.0,
            $this->barometer->height,
            null === $receiver->at ? 0.0 : hypot(...$receiver->speed),
            $lean[0],
            $lean[1],
            $bearings->headingDeg(),
            null === $receiver->at ? 0.0 : $receiver->sky->satellites,
        ];
    }

    public function see(float $t, Commands $commands, bool $ends = false): void
    {
        $stage = $commands instanceof HeardCommands ? $commands->home()->value ?? $commands->stage->value : '';
        $track = $this->sortie?->track;
        $ends ? $track?->end(
            $t,
            $this->motion->at,
            $this->motion->speed,
            $stage,
        ) : $track?->see($t, $this->motion->at, $this->motion->speed, $stage);
    }

    /**
     * What self-righting sends: motors on the stick's side run backwards, the others stand.
     *
     * @param array{float, float} $thumbs roll and pitch, −1 to 1
     *
     * @return list<float> outputs of the frame that is believed, %; negative is backward
     */
    public function righting(array $thumbs): array
    {
        $send = [];
        $far = 0.0;
        foreach ($this->control->believed->motors as $m) {
            $far = max($far, abs($m->x), abs($m->y));
        }
        foreach ($this->control->believed->motors as $m) {
            $send[] = -100 * min(1.0, max(0.0, ($thumbs[0] * $m->y - $thumbs[1] * $m->x) / $far));
        }

        return $send;
    }

    /**
     * Whether it was flown, stands disarmed and nothing moves.
     *
     * @param array<int, float> $rate deg/s
     */
    public function isAtRest(Commands $commands, array $rate): bool
    {
        if ($commands->armed || !$this->motion->touches || !$this->wasArmed($commands)) {
            return false;
        }
        [$x, $y, $z] = $this->motion->speed;

        return abs($x) + abs($y) + abs($z) < self::REST_MS && abs($rate[0]) + abs($rate[1]) + abs($rate[2]) < self::REST_DPS;
    }

    private function wasArmed(Commands $commands): bool
    {
        return !$commands instanceof HeardCommands || $commands->wasArmed;
    }
}
