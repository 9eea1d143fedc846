<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Modes;

use Ortholex\Bench\Flight\Controller\FlightControl;
use Ortholex\Bench\Flight\Position\Bearings;
use Ortholex\Core\Arming\Arming;
use Ortholex\Core\Arming\ArmingInput;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Arming\Condition;
use Ortholex\Core\Arming\SelfDisarm;
use Ortholex\Core\Arming\Stopped;
use Ortholex\Core\Craft\ArmedBy;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\HomeStage;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Stage;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\SwitchMap;

/** The firmware in the open: it arms and disarms, flies as its levers say, and by its plan when nobody speaks to it any more. */
final class HeardCommands extends Commands
{
    public Stage $stage = Stage::Heard;
    public ?Stopped $stopped = null;

    /** Whether it was armed since it was switched on. */
    public bool $wasArmed = false;

    /** When it left the frames for lost, s; null while it hears. */
    public ?float $noticedS = null;

    private float $lastS = -\INF;
    private readonly LossPlan $plan;
    private readonly SwitchMap $map;
    private readonly SelfDisarm $watch;
    private readonly bool $byStick;
    private readonly Steering $level;
    private Arming $machine;
    private ?AltitudeHold $altitude = null;
    private ?PositionHold $hold = null;
    private ?WayHome $way = null;

    /** @var list<Action> */
    private array $on = [];

    /** @var array<int, Steering|null> by the bits of what is on */
    private array $steerings = [];

    /** @var array<int, int> channel of each stick */
    private array $numbers = [];

    /**
     * @param bool          $aloft    whether it is in the air and armed when it begins
     * @param Bearings|null $bearings null without a position receiver that is heard
     */
    public function __construct(
        FlightControl $control,
        private readonly SettingSet $set,
        bool $aloft,
        private readonly ?Bearings $bearings = null,
    ) {
        parent::__construct($control);
        $this->plan = LossPlan::in($set);
        $this->map = SwitchMap::of($set, []);
        $this->watch = SelfDisarm::in($set);
        $this->byStick = ArmedBy::Stick === ArmedBy::in($set);
        $this->level = Steering::level($set, $control->feel);
        $this->machine = $aloft ? Arming::aloft() : Arming::atPowerUp();
        $this->armed = $aloft;
        foreach ([Channel::Roll, Channel::Pitch, Channel::Yaw, Channel::Throttle] as $stick) {
            $this->numbers[] = $set->whole("channel.$stick->value.number", $stick->usual());
        }
    }

    /**
     * A frame that came.
     *
     * @param array<int, float> $us by channel
     * @param bool              $good neither lost nor marked as failsafe
     */
    public function frame(array $us, bool $good, float $now): void
    {
        if (!$good || !$this->plan->counts($us[$this->numbers[3]] ?? null)) {
            return;
        }
        $this->lastS = $now;
        $this->on = $this->map->on($us);
        $this->take([
            $us[$this->numbers[0]] ?? 1500.0,
            $us[$this->numbers[1]] ?? 1500.0,
            $us[$this->numbers[2]] ?? 1500.0,
            $us[$this->numbers[3]] ?? 1000.0,
        ]);
    }

    /**
     * One look at everything.
     *
     * @param array{float, float, float} $lean   deg
     * @param array{float, float, float} $rate   deg/s
     * @param float                      $height by the barometer, m
     * @param float                      $climb  m/s
     * @param float                      $cellV  under load
     */
    public function look(float $now, float $dt, array $lean, float $tilt, array $rate, float $height, float $climb, float $cellV): void
    {
        $this->stage = $this->plan->stage($now - $this->lastS, null === $this->bearings ? \INF : $now - $this->bearings->knewS);
        if (Stage::Heard !== $this->stage && $this->lastS > -\INF) {
            $this->noticedS ??= $now;
        }
        $this->arm($now, $dt, $tilt, $rate, $cellV);
        $this->righting = $this->armed && \in_array(Action::SelfRight, $this->on, true);
        $this->airMode = $this->control->airMode || \in_array(Action::AirMode, $this->on, true);
        if ($this->comesHome($lean, $tilt, $rate, $height, $climb, $dt)) {
            return;
        }
        $alone = $this->stage->fliesAlone();
        $this->steering = $alone ? $this->level : $this->byLevers();
        $this->way = Stage::Return === $this->stage ? $this->way : null;
        if ($alone) {
            $this->held = [0.0, 0.0, 0.0];
            $this->asked = $this->throttle = $this->plan->descendPct;
            $this->altitude = null;
            $this->steer($lean);

            return;
        }
        $this->steer($lean);
        $this->holds($lean, $tilt, $height, $climb, $dt);
    }

    /** Where its return stands; null while it does not return. */
    public function home(): ?HomeStage
    {
        return $this->way?->stage;
    }

    private function isOn(Action $action): bool
    {
        return $this->armed && \in_array($action, $this->on, true);
    }

    /**
     * A return, by lever or by plan: whether it is under way, and not blind.
     *
     * @param array{float, float, float} $lean
     * @param array{float, float, float} $rate
     */
    private function comesHome(array $lean, float $tilt, array $rate, float $height, float $climb, float $dt): bool
    {
        $bearings = $this->bearings;
        $returns = $this->armed && (Stage::Return === $this->stage || (Stage::Heard === $this->stage && $this->isOn(Action::Return)));
        if (null === $bearings || !$returns) {
            return false;
        }
        $this->way ??= new WayHome($this->set);
        $at = $bearings->at();
        $was = $this->way->stage;
        $stage = $this->way->look($bearings->home, $at, $height, $climb, $bearings->headingDeg(), max(array_map(abs(...), $rate)), $dt);
        if (HomeStage::Blind === $stage || null === $at || null === $bearings->home) {
            return false;
        }
        $heading = $bearings->headingDeg();
        $this->altitude ??= new AltitudeHold($this->set, $height, $this->asked);
        if ($stage !== $was) {
            $this->altitude->from($height);
        }
        $lift = $this->altitude->climbing($this->way->climb($height), $height, $climb, $dt);
        $this->held = [0.0, 0.0, 0.0];
        $this->wanted = $this->level->towards(
            $this->way->tilt($bearings->home, $at, $bearings->receiver->speed, $heading, $dt),
            $this->way->turn($bearings->home, $at, $heading),
            $lean,
        );
        $this->airMode = $this->airMode && !$this->way->seemsToStand();
        $this->throttle = $this->way->lands(Steering::lifted($lift, $tilt), $this->altitude->hovers(), $dt);

        return true;
    }

    /**
     * Height and place, where a lever holds them.
     *
     * @param array{float, float, float} $lean
     */
    private function holds(array $lean, float $tilt, float $height, float $climb, float $dt): void
    {
        $at = $this->isOn(Action::PositionHold) ? $this->bearings?->at() : null;
        if (null === $at && !$this->isOn(Action::AltitudeHold)) {
            $this->altitude = null;
            $this->hold = null;

            return;
        }
        $stick = ($this->control->span[3]->position($this->stickUs[3]) + 1) / 2;
        $this->altitude ??= new AltitudeHold($this->set, $height, $this->asked);
        $this->throttle = $this->altitude->throttle($stick, $height, $climb, $dt);
        if (null === $at || null === $this->bearings) {
            $this->hold = null;

            return;
        }
        $this->hold ??= new PositionHold($this->set);
        $leans = $this->hold->tilt($this->thumbs(), $at, $this->bearings->receiver->speed, $this->bearings->headingDeg(), $dt);
        $this->wanted = $this->level->towards($leans, $this->wanted[2], $lean);
        $this->throttle = Steering::lifted($this->throttle, $tilt);
    }

    /** @param array{float, float, float} $rate */
    private function arm(float $now, float $dt, float $tilt, array $rate, float $cellV): void
    {
        $turn = max(abs($rate[0]), abs($rate[1]), abs($rate[2]));
        $askedTurn = max(abs($this->wanted[0]), abs($this->wanted[1]), abs($this->wanted[2]));
        $righting = \in_array(Action::SelfRight, $this->on, true);
        $stopped = $this->watch->look($dt, $this->armed, $tilt, $turn, $askedTurn, $this->throttle / 100, $righting);
        $this->stopped = $stopped ?? $this->stopped;
        $bars = 0;
        if (!$this->armed) {
            $heard = Stage::Heard === $this->stage;
            $condition = new Condition(
                $heard,
                false,
                $this->asked / 100,
                $righting ? 0.0 : $tilt,
                $turn,
                true,
                0.0,
                $cellV,
                $this->bearings?->isReady() ?? true,
                false,
                false,
            );
            $bars = Bar::mask(Condition::forbidding($condition->unmet($this->set), $this->set));
        }
        $input = new ArmingInput(
            $this->held[2],
            ($this->control->span[3]->position($this->stickUs[3]) + 1) / 2,
            $this->byStick,
            $this->set->flag('arming.off_needs_low_throttle'),
            $this->stage,
            null !== $stopped || ($this->way->landed ?? false),
        );
        $this->machine = $this->machine->next($input, \in_array(Action::Arm, $this->on, true), $bars, $now);
        $this->armed = $this->machine->armed;
        $this->wasArmed = $this->wasArmed || $this->armed;
    }

    private function byLevers(): ?Steering
    {
        $bits = array_reduce($this->on, static fn (int $b, Action $a): int => $b | $a->bit(), 0);
        if (!\array_key_exists($bits, $this->steerings)) {
            $this->steerings[$bits] = Steering::of($this->set, $this->control->feel, $this->on);
        }

        return $this->steerings[$bits];
    }
}
