<?php

declare(strict_types=1);

namespace Ortholex\Bench\World;

use Ortholex\Bench\Board\Board;
use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Board\FirmwareLabel;
use Ortholex\Bench\Drive\DriveTrain;
use Ortholex\Bench\Esc\Esc;
use Ortholex\Bench\Esc\EscLabel;
use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Overlay\ScryChip;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\Radio\Hands;
use Ortholex\Bench\Recorder\RecorderMemory;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\State\WorldStore;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\Video\HeronModule;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\World\NothingToMove;
use Ortholex\Core\World\Thing;

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
        'weak_link' => 'the receiver misses three frames in ten',
        'weak_esc' => 'the ESC of front right is failing at low output',
    ];

    /** What has already happened, and is mended by rescue, not by switching it off. */
    public const MISHAPS = [
        Mishap::Board->value => 'the board was flashed with firmware of another board',
        Mishap::Esc->value => 'the front left ESC was flashed with firmware for another layout',
    ];

    /** Its ESCs and motors. */
    public DriveTrain $drive;

    public function __construct(
        public WorldStore $store,
        public BoardModel $model,
        public CraftPhysics $physics,
        private Catalogue $catalogue,
        private Pace $pace,
    ) {
        $this->drive = new DriveTrain($store, $physics, $pace);
    }

    public function board(WorldState $state): Board
    {
        return new Board(
            $this->model,
            $this->physics,
            $state,
            $this->flash(),
            $this->catalogue,
            $this->pace,
            $this->drive,
            $this->chipFlash(...),
            $this->recorder(),
        );
    }

    public function recorder(): RecorderMemory
    {
        return new RecorderMemory($this->store->recorderPath(), $this->model->recorderBytes);
    }

    public function chipFlash(): FlashFile
    {
        return new FlashFile($this->store->chipFlashPath(), ScryChip::FLASH_END);
    }

    public function flash(): FlashFile
    {
        return new FlashFile($this->store->flashPath(), $this->model->flashBytes());
    }

    /**
     * Moves one thing of the physical world.
     *
     * @param string $thing of Thing; a fault or mishap with its name after a colon
     * @param string $to    "1" or "0", a tilt, or two places
     *
     * @throws NothingToMove for a thing or place there is not
     */
    public function move(string $thing, string $to): void
    {
        [$kind, $name] = [...explode(':', $thing, 2), ''];
        $this->store->change(function (WorldState $s) use ($thing, $kind, $name, $to): void {
            $on = '1' === $to;
            // The board sees what was before the hand came, and what is after it.
            $this->board($s)->hear();
            match (Thing::tryFrom($kind)) {
                Thing::Cable => $this->moveCable($s, $on),
                Thing::Pack => $this->movePack($s, $on),
                Thing::Props => $s->props = $on,
                Thing::PackUsed => $s->chargeUsed = self::share($to, 0.0, 1.0),
                Thing::PackWorn => $s->packWorn = self::share($to, 1.0, 5.0),
                Thing::Transmitter => $this->switchTransmitter($s, $on),
                Thing::Radio => $this->moveRadio($s, $name, $to),
                Thing::Outdoors => $this->carry($s, $on),
                Thing::Heading => $s->headingDeg = self::share($to, -360.0, 360.0),
                Thing::Tumble => $s->tumbleAt = $on ? $this->pace->now() : 0.0,
                Thing::PropsDeclaredOff => $s->propsDeclaredOff = $on,
                Thing::BootloaderButton => $this->pressBootloaderButton($s),
                Thing::SwapMotors => $this->swapMotors($s, $to),
                Thing::SwapEscs => $this->swapEscs($s, $to),
                Thing::Tilt => $this->tilt($s, $to),
                Thing::Mishap => match (Mishap::tryFrom($name)) {
                    Mishap::Board => $this->spoilBoard($s),
                    Mishap::Esc => $this->spoilEsc($s),
                    null => throw NothingToMove::thing($thing),
                },
                Thing::Fault => $this->setFault($s, $name, $on),
                null => throw NothingToMove::thing($thing),
            };
            $this->board($s)->hear();
        });
    }

    /** @throws NothingToMove */
    private static function share(string $to, float $least, float $most): float
    {
        $is = is_numeric($to) ? (float) $to : \NAN;

        return is_finite($is) && $is >= $least && $is <= $most ? $is : throw NothingToMove::pack($to, $least, $most);
    }

    private function switchTransmitter(WorldState $s, bool $on): void
    {
        if ($s->transmitter !== $on) {
            $s->transmitter = $on;
            $radio = $s->radio();
            $radio->switchedAt = $this->pace->now();
            $s->putRadio($radio);
        }
    }

    private function moveRadio(WorldState $s, string $what, string $to): void
    {
        $radio = $s->radio();
        (new Hands($radio, $s->transmitter, $this->pace->now()))->move($what, $to);
        $s->putRadio($radio);
    }

    /**
     * @param list<array{string, string}> $wires   pin of a part, pad of the board
     * @param list<string>                $bridged jumpers
     */
    public function solder(array $wires, array $bridged): void
    {
        $this->store->change(function (WorldState $s) use ($wires, $bridged): void {
            $s->soldered = $wires;
            $s->bridged = $bridged;
            $this->powerParts($s);
        });
    }

    private function carry(WorldState $s, bool $outdoors): void
    {
        if ($s->outdoors !== $outdoors) {
            $s->outdoors = $outdoors;
            $plumb = PlumbState::fromArray($s->plumb);
            $plumb->outdoorsAt = $this->pace->now();
            $s->plumb = $plumb->toArray();
        }
    }

    /** Whether what hangs on the board got power, and what follows. */
    private function powerParts(WorldState $s): void
    {
        $board = $this->board($s);
        $plumb = PlumbState::fromArray($s->plumb);
        $plumb->power($board->powers('plumb-g2'), $this->pace->now());
        $s->plumb = $plumb->toArray();
        $s->heron = HeronModule::of($s->heron, $board->powers('heron-400'), $this->pace)->toArray();
        $radio = $s->radio();
        $radio->power($this->board($s)->receiver()?->isPowered() ?? false, $this->pace->now());
        $s->putRadio($radio);
    }

    private function moveCable(WorldState $s, bool $in): void
    {
        if ($s->cable !== $in) {
            $s->cable = $in;
            ++$s->cableMoves;
            $s->opened = false;
            $s->escsListen = false;
            $this->powerMoved($s);
        }
    }

    private function movePack(WorldState $s, bool $on): void
    {
        if ($s->pack !== $on) {
            $s->pack = $on;
            $this->powerMoved($s);
            $this->drive->powerMoved($s);
        }
    }

    private function pressBootloaderButton(WorldState $s): void
    {
        if (Mode::Off !== $s->mode) {
            $s->stayInBootloader = true;
            $this->board($s)->restart();
        }
    }

    private function swapMotors(WorldState $s, string $places): void
    {
        [$a, $b] = [...explode(',', $places), ''];
        if (null === $this->physics->frame->at($a) || null === $this->physics->frame->at($b)) {
            throw NothingToMove::places($places);
        }
        [$s->motorAt[$a], $s->motorAt[$b]] = [$s->motorAt[$b] ?? $b, $s->motorAt[$a] ?? $a];
    }

    /** Two ESCs change places, with the wires of their motors soldered on as they were. */
    private function swapEscs(WorldState $s, string $places): void
    {
        $pads = array_flip($this->physics->wiredPads);
        [$a, $b] = array_map(static fn (string $place): ?int => $pads[$place] ?? null, [...explode(',', $places), '']);
        if (!isset($a, $b, $this->physics->escs[$a], $this->physics->escs[$b])) {
            throw NothingToMove::places($places);
        }
        if ($s->pack) {
            throw NothingToMove::underPower();
        }
        [$s->escAt[$a], $s->escAt[$b]] = [$s->escOn($b), $s->escOn($a)];
    }

    private function tilt(WorldState $s, string $to): void
    {
        if (!isset(WorldState::TILTS[$to])) {
            throw NothingToMove::tilt($to, array_keys(WorldState::TILTS));
        }
        $s->tiltBefore = $s->tilt;
        $s->tilt = $to;
        $s->tiltChangedAt = $this->pace->now();
    }

    private function setFault(WorldState $s, string $fault, bool $on): void
    {
        if (!isset(self::FAULTS[$fault])) {
            throw NothingToMove::fault($fault);
        }
        $s->faults = array_values(array_diff($s->faults, [$fault]));
        if ($on) {
            $s->faults[] = $fault;
        }
    }

    /** Board firmware of a like-named board, as after a file chosen in haste. */
    private function spoilBoard(WorldState $s): void
    {
        $flash = $this->flash();
        $rest = hash('sha256', 'firmware of another board', true);
        $flash->write(FirmwareLabel::OFFSET, FirmwareLabel::encode($this->model->hardwareId.'-S', '25.08', $rest).$rest);
        if (Mode::Off !== $s->mode) {
            $this->board($s)->restart();
        }
    }

    private function spoilEsc(WorldState $s): void
    {
        $pad = array_search(Place::FrontLeft->value, $this->physics->wiredPads, true);
        $model = false === $pad ? null : $this->physics->escs[$s->escOn($pad)] ?? null;
        if (false === $pad || null === $model) {
            return;
        }
        $rest = hash('sha256', 'firmware for another layout', true);
        $this->drive->escFlash($s->escOn($pad))->write(
            EscLabel::OFFSET,
            EscLabel::encode(
                ['Withy', '1.4.0', $model->layout.'x', (string) $model->clockMhz, (string) $model->deadTimeNs, '24'],
                $rest,
            ).$rest,
        );
        if ($s->pack) {
            $this->drive->withEsc($s, $pad, static fn (Esc $esc) => $esc->start(false));
        }
    }

    private function powerMoved(WorldState $s): void
    {
        $this->powerParts($s);
        ++$s->powerMoves;
        $s->videoTold = '';
        $s->mishap = '';
        $s->spinUntil = 0.0;
        $s->propsDeclaredOff = false;
        $powered = $s->cable || $s->pack;
        if ($powered && Mode::Off === $s->mode) {
            $this->board($s)->powerOn();
        } elseif (!$powered) {
            $s->teach = null;
            $s->mode = Mode::Off;
            $s->running = [];
            $s->stayInBootloader = false;
        }
    }
}
