<?php

declare(strict_types=1);

namespace Ortholex\Bench\Drive;

use Ortholex\Bench\Esc\Esc;
use Ortholex\Bench\Esc\EscModel;
use Ortholex\Bench\Esc\EscState;
use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\State\WorldStore;
use Ortholex\Bench\Time\Pace;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Drive\Tone;
use Ortholex\Core\Esc\EndPoint;
use Ortholex\Core\Settings\EscTable;

/** The ESCs and motors of a craft as they hang on its pads: what they make of power and of the outputs. */
final readonly class DriveTrain
{
    public function __construct(private WorldStore $store, private CraftPhysics $physics, private Pace $pace)
    {
    }

    /** @param int $home pad that the ESC was first soldered to */
    public function escFlash(int $home): FlashFile
    {
        return new FlashFile($this->store->escFlashPath($home), EscModel::FLASH_END - EscModel::FLASH_FROM);
    }

    /**
     * Has $act meet the ESC on a pad, and keeps what became of it; null when the pad has none.
     *
     * @template T
     *
     * @param \Closure(Esc, EscState): T $act
     *
     * @return T|null
     */
    public function withEsc(WorldState $s, int $pad, \Closure $act): mixed
    {
        $home = $s->escOn($pad);
        $model = $this->physics->escs[$home] ?? null;
        if (null === $model) {
            return null;
        }
        $state = $s->esc($pad);
        $result = $act(new Esc($pad, $model, $state, $this->escFlash($home)), $state);
        $s->putEsc($pad, $state);

        return $result;
    }

    /** @return list<array{pad: int, place: string, direction: int}> motors that turn now; +1 clockwise from above */
    public function turning(WorldState $s): array
    {
        $turning = [];
        $armed = true === ($s->arming['armed'] ?? false) && !SettingSet::of($s->running)->flag('motors.still_when_armed');
        if ($s->pack && $armed) {
            foreach ($this->physics->wiredPads as $pad => $place) {
                if (!$s->rights || \in_array($place, $s->righting, true)) {
                    $turning[] = ['pad' => $pad, 'place' => $place, 'direction' => $this->turns($s, $pad) * ($s->rights ? -1 : 1)];
                }
            }
        } elseif ($s->pack && $this->pace->now() < $s->spinUntil) {
            foreach ($this->physics->wiredPads as $pad => $place) {
                if ((0 === $s->spinPad || $pad === $s->spinPad) && $this->rotor($s, $pad)->turnsAt($this->felt($s, $pad))) {
                    $turning[] = ['pad' => $pad, 'place' => $place, 'direction' => $this->turns($s, $pad)];
                }
            }
        }

        return $turning;
    }

    /** @return list<string> what the flight meets at its motors: those that turn against their props, or not at all */
    public function driveFaults(WorldState $s): array
    {
        $faults = [];
        foreach ($this->physics->wiredPads as $pad => $place) {
            if (isset($this->physics->escs[$pad])) {
                if ($s->pack && Mode::Firmware !== $s->esc($pad)->mode) {
                    $faults[] = "dead:$place";
                } elseif ($this->turns($s, $pad) !== $this->physics->frame->at($place)?->spin) {
                    $faults[] = "backward:$place";
                }
            }
        }

        return $faults;
    }

    /** What an ESC makes of the driven output, %: with an analogue signal, by the end points it was taught. */
    public function felt(WorldState $s, int $pad): float
    {
        if (MotorSignal::in(SettingSet::of($s->running))->isDigital()) {
            return $s->spinPct;
        }
        $held = $s->esc($pad)->settings;
        $low = EndPoint::Low->of($held);
        $high = EndPoint::High->of($held);

        return max(0.0, (100 * (MotorSignal::pulseUs($s->spinPct) - $low)) / ($high - $low));
    }

    /** Which way the motor on a pad turns when driven: its wires, and the direction set in its ESC. */
    public function turns(WorldState $s, int $pad): int
    {
        return ($this->physics->escs[$pad]->turns ?? 1) * (EscTable::isSwapped($s->esc($pad)->settings) ? -1 : 1);
    }

    /** How the motor on a pad behaves at low output, with whatever ails it or its ESC. */
    public function rotor(WorldState $s, int $pad): Rotor
    {
        $place = $this->physics->wiredPads[$pad] ?? '';
        $motor = $s->motorAt[$place] ?? $place;
        $weak =
            (\in_array('weak_motor', $s->faults, true) && Place::FrontRight->value === $motor)
            || (\in_array('weak_esc', $s->faults, true)
                && Place::FrontRight->value === ($this->physics->wiredPads[$s->escOn($pad)] ?? ''));
        $esc = $s->esc($pad);

        return new Rotor(
            $pad,
            Mode::Firmware === $esc->mode,
            $weak,
            ($this->physics->maxRpm * $this->physics->restVoltage($s->chargeUsed)) / ($this->physics->cells * 3.9),
        );
    }

    /** The pack came or went: ESCs start or fall silent. */
    public function powerMoved(WorldState $s): void
    {
        $s->tones = [];
        foreach ($this->physics->escs as $pad => $model) {
            if (!$s->pack) {
                $esc = $s->esc($pad);
                $esc->mode = Mode::Off;
                $esc->tookUpperEnd = false;
                $s->putEsc($pad, $esc);
                continue;
            }
            $this->withEsc($s, $pad, static fn (Esc $esc) => $esc->start($s->catchPad === $pad));
        }
        if ($s->pack) {
            $s->catchPad = 0;
            // Powered before anyone spoke over the cable, they took their signal and listen to nothing else.
            $s->escsListen = $s->opened && $s->cable;
            $this->teach($s);
        }
    }

    /** What analogue ESCs make of the outputs held for them: the upper end as power comes, then the lower. */
    public function teach(WorldState $s): void
    {
        $analogue = !MotorSignal::in(SettingSet::of($s->running))->isDigital();
        foreach ($this->physics->escs as $pad => $model) {
            $esc = $s->esc($pad);
            if (Mode::Firmware !== $esc->mode || !$s->pack) {
                continue;
            }
            if ($analogue && TeachStep::Full === $s->teach && !$esc->tookUpperEnd) {
                $esc->tookUpperEnd = true;
                $esc->settings[EndPoint::High->value] = MotorSignal::FULL_US;
                $s->tones[] = Tone::TwoRising;
            } elseif ($analogue && TeachStep::Zero === $s->teach && $esc->tookUpperEnd) {
                $esc->tookUpperEnd = false;
                $esc->settings[EndPoint::Low->value] = MotorSignal::ZERO_US;
                $s->tones[] = Tone::ThreeFalling;
            } elseif (null === $s->teach && [] === $s->tones) {
                $s->tones[] = Tone::PowerOn;
            }
            $s->putEsc($pad, $esc);
        }
    }
}
