<?php

declare(strict_types=1);

namespace Ortholex\Bench\World;

use Ortholex\Bench\Board\Board;
use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Board\FirmwareLabel;
use Ortholex\Bench\Esc\Esc;
use Ortholex\Bench\Esc\EscLabel;
use Ortholex\Bench\Esc\EscModel;
use Ortholex\Bench\Esc\EscState;
use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Flight\CraftPhysics;
use Ortholex\Core\Settings\Catalogue;

/** One craft on the bench: its physical actions, and the board on the other end of the cable. */
final readonly class World
{
    public const FAULTS = [
        'noisy_cable' => 'the cable garbles one message in twelve',
        'worn_flash' => 'one flash page never takes',
        'loose_arm' => 'a loose arm rings at 187 Hz',
        'bent_prop' => 'a prop of the rear left motor is bent',
        'lost_sync' => 'the rear left motor loses sync in mid-flight',
        'shy_esc' => 'the rear left ESC misses every other message',
        'loose_signal_wire' => 'the signal wire of the rear left ESC has a loose joint',
        'weak_motor' => 'the front right motor is worn and struggles at low output',
        'weak_esc' => 'the ESC of front right is failing at low output',
    ];

    /** What has already happened, and is mended by rescue, not by switching it off. */
    public const MISHAPS = [
        'board' => 'the board was flashed with firmware of another board',
        'esc' => 'the front left ESC was flashed with firmware for another layout',
    ];

    public function __construct(
        public WorldStore $store,
        public BoardModel $model,
        public CraftPhysics $physics,
        private Catalogue $catalogue,
        private Pace $pace,
    ) {
    }

    public function board(WorldState $state): Board
    {
        return new Board($this->model, $this->physics, $state, $this->flash(), $this->catalogue, $this->pace, $this);
    }

    public function flash(): FlashFile
    {
        return new FlashFile($this->store->flashPath(), $this->model->flashBytes());
    }

    public function escFlash(int $pad): FlashFile
    {
        return new FlashFile($this->store->escFlashPath($pad), EscModel::FLASH_END - EscModel::FLASH_FROM);
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
        $model = $this->physics->escs[$pad] ?? null;
        if (null === $model) {
            return null;
        }
        $state = $s->esc($pad);
        $result = $act(new Esc($pad, $model, $state, $this->escFlash($pad)), $state);
        $s->putEsc($pad, $state);

        return $result;
    }

    /**
     * Moves one thing of the physical world.
     *
     * @param string $thing cable, pack, props, transmitter, outdoors, tilt, props_declared_off, fault:NAME swap_motors, mishap:NAME or bootloader_button
     * @param string $to    "1" or "0", or a tilt
     *
     * @throws \InvalidArgumentException for a thing or place there is not
     */
    public function move(string $thing, string $to): void
    {
        $this->store->change(function (WorldState $s) use ($thing, $to): void {
            $on = '1' === $to;
            switch ($thing) {
                case 'cable':
                    if ($s->cable !== $on) {
                        $s->cable = $on;
                        ++$s->cableMoves;
                        $s->opened = false;
                        $s->escsListen = false;
                        $this->powerMoved($s);
                    }
                    break;
                case 'pack':
                    if ($s->pack !== $on) {
                        $s->pack = $on;
                        $this->powerMoved($s);
                        $this->escPowerMoved($s);
                    }
                    break;
                case 'props':
                    $s->props = $on;
                    break;
                case 'transmitter':
                    $s->transmitter = $on;
                    break;
                case 'outdoors':
                    $s->outdoors = $on;
                    break;
                case 'props_declared_off':
                    $s->propsDeclaredOff = $on;
                    break;
                case 'bootloader_button':
                    if (WorldState::OFF !== $s->mode) {
                        $s->stayInBootloader = true;
                        $this->board($s)->restart();
                    }
                    break;
                case 'swap_motors':
                    [$a, $b] = [...explode(',', $to), ''];
                    if (null === $this->physics->frame->at($a) || null === $this->physics->frame->at($b)) {
                        throw new \InvalidArgumentException("The motors of “{$to}” cannot be swapped; name two places of this craft.");
                    }
                    [$s->motorAt[$a], $s->motorAt[$b]] = [$s->motorAt[$b] ?? $b, $s->motorAt[$a] ?? $a];
                    break;
                case 'tilt':
                    if (!isset(WorldState::TILTS[$to])) {
                        throw new \InvalidArgumentException(
                            "The craft cannot be tilted to “{$to}”; it can lie ".implode(', ', array_keys(WorldState::TILTS)).'.',
                        );
                    }
                    $s->tiltBefore = $s->tilt;
                    $s->tilt = $to;
                    $s->tiltChangedAt = $this->pace->now();
                    break;
                case 'mishap:board':
                    $this->spoilBoard($s);
                    break;
                case 'mishap:esc':
                    $this->spoilEsc($s);
                    break;
                default:
                    $fault = str_starts_with($thing, 'fault:') ? substr($thing, 6) : '';
                    if (!isset(self::FAULTS[$fault])) {
                        throw new \InvalidArgumentException("The bench has no “{$thing}” to move.");
                    }
                    $s->faults = array_values(array_diff($s->faults, [$fault]));
                    if ($on) {
                        $s->faults[] = $fault;
                    }
            }
        });
    }

    /** @return list<array{pad: int, place: string, direction: int}> the motors that turn right now, and which way; +1 clockwise from above */
    public function turning(WorldState $s): array
    {
        $turning = [];
        if ($s->pack && $this->pace->now() < $s->spinUntil) {
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
                if ($s->pack && EscState::FIRMWARE !== $s->esc($pad)->mode) {
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
        if (!\in_array($s->running['motors.protocol'] ?? '', ['pwm', 'oneshot125'], true)) {
            return $s->spinPct;
        }
        $esc = $s->esc($pad);

        return max(0.0, (100 * (1000 + 10 * $s->spinPct - $esc->lowUs)) / ($esc->highUs - $esc->lowUs));
    }

    /** Which way the motor on a pad turns when driven: its wires, and the direction set in its ESC. */
    public function turns(WorldState $s, int $pad): int
    {
        return ($this->physics->escs[$pad]->turns ?? 1) * ('reversed' === ($s->esc($pad)->settings['direction'] ?? 'normal') ? -1 : 1);
    }

    /** How the motor on a pad behaves at low output, with whatever ails it or its ESC. */
    public function rotor(WorldState $s, int $pad): Rotor
    {
        $place = $this->physics->wiredPads[$pad] ?? '';
        $motor = $s->motorAt[$place] ?? $place;
        $weak =
            (\in_array('weak_motor', $s->faults, true) && 'front_right' === $motor)
            || (\in_array('weak_esc', $s->faults, true) && 'front_right' === $place);
        $esc = $s->esc($pad);

        return new Rotor(
            $pad,
            EscState::FIRMWARE === $esc->mode,
            $weak,
            ($this->physics->maxRpm * $this->physics->restVoltage($s->chargeUsed)) / ($this->physics->cells * 3.9),
        );
    }

    /** Board firmware of a like-named board, as after a file chosen in haste. */
    private function spoilBoard(WorldState $s): void
    {
        $flash = $this->flash();
        $rest = hash('sha256', 'firmware of another board', true);
        $flash->write(FirmwareLabel::OFFSET, FirmwareLabel::encode($this->model->hardwareId.'-S', '4.1.2', $rest).$rest);
        if (WorldState::OFF !== $s->mode) {
            $this->board($s)->restart();
        }
    }

    private function spoilEsc(WorldState $s): void
    {
        $pad = array_search('front_left', $this->physics->wiredPads, true);
        $model = false === $pad ? null : $this->physics->escs[$pad] ?? null;
        if (false === $pad || null === $model) {
            return;
        }
        $rest = hash('sha256', 'firmware for another layout', true);
        $this->escFlash($pad)->write(
            EscLabel::OFFSET,
            EscLabel::encode(
                ['Withy', '1.4.0', $model->layout.'x', (string) $model->clockMhz, (string) $model->deadTimeNs, '24'],
                $rest,
            ).$rest,
        );
        if ($s->pack) {
            $this->withEsc($s, $pad, static fn (Esc $esc) => $esc->start(false));
        }
    }

    private function escPowerMoved(WorldState $s): void
    {
        $s->tones = [];
        foreach ($this->physics->escs as $pad => $model) {
            if (!$s->pack) {
                $esc = $s->esc($pad);
                $esc->mode = EscState::OFF;
                $esc->teaching = '';
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
        $analogue = \in_array($s->running['motors.protocol'] ?? '', ['pwm', 'oneshot125'], true);
        foreach ($this->physics->escs as $pad => $model) {
            $esc = $s->esc($pad);
            if (EscState::FIRMWARE !== $esc->mode || !$s->pack) {
                continue;
            }
            if ($analogue && 'full' === $s->teach && '' === $esc->teaching) {
                $esc->teaching = 'high';
                $esc->highUs = 2000.0;
                $s->tones[] = 'two rising tones';
            } elseif ($analogue && 'zero' === $s->teach && 'high' === $esc->teaching) {
                $esc->teaching = '';
                $esc->lowUs = 1000.0;
                $s->tones[] = 'three falling tones';
            } elseif ('' === $s->teach && [] === $s->tones) {
                $s->tones[] = 'power-on tone';
            }
            $s->putEsc($pad, $esc);
        }
    }

    private function powerMoved(WorldState $s): void
    {
        ++$s->powerMoves;
        $s->mishap = '';
        $s->spinUntil = 0.0;
        $s->propsDeclaredOff = false;
        $powered = $s->cable || $s->pack;
        if ($powered && WorldState::OFF === $s->mode) {
            $this->board($s)->powerOn();
        } elseif (!$powered) {
            $s->teach = '';
            $s->mode = WorldState::OFF;
            $s->running = [];
            $s->stayInBootloader = false;
        }
    }
}
