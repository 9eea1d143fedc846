<?php

declare(strict_types=1);

namespace Ortholex\Bench\World;

use Ortholex\Bench\Board\Board;
use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Board\FlashFile;
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
        return new Board($this->model, $this->physics, $state, new FlashFile($this->store->flashPath(), $this->model->flashBytes()), $this->catalogue, $this->pace);
    }

    /**
     * Moves one thing of the physical world.
     *
     * @param string $thing cable, pack, props, transmitter, outdoors, tilt, props_declared_off, fault:NAME or bootloader_button
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
                        $this->powerMoved($s);
                    }
                    break;
                case 'pack':
                    if ($s->pack !== $on) {
                        $s->pack = $on;
                        $this->powerMoved($s);
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
                case 'tilt':
                    if (!isset(WorldState::TILTS[$to])) {
                        throw new \InvalidArgumentException("The craft cannot be tilted to “{$to}”; it can lie ".implode(', ', array_keys(WorldState::TILTS)).'.');
                    }
                    $s->tiltBefore = $s->tilt;
                    $s->tilt = $to;
                    $s->tiltChangedAt = $this->pace->now();
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

    /** @return array{place: string, direction: int}|null the motor that turns right now, and which way; +1 clockwise from above */
    public function turning(WorldState $s): ?array
    {
        if (!$s->pack || $this->pace->now() >= $s->spinUntil || !isset($this->physics->wiredPads[$s->spinPad])) {
            return null;
        }
        foreach ($this->physics->frame->motors as $motor) {
            if ($motor->place === $this->physics->wiredPads[$s->spinPad]) {
                return ['place' => $motor->place, 'direction' => $motor->spin];
            }
        }

        return null;
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
            $s->mode = WorldState::OFF;
            $s->running = [];
            $s->stayInBootloader = false;
        }
    }
}
