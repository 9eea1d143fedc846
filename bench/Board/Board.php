<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Compass\Needle;
use Ortholex\Bench\Drive\DriveTrain;
use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Overlay\ScryChip;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\Recorder\RecorderMemory;
use Ortholex\Bench\Sky\Marsh;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\Wiring\SolderedParts;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Compass\Calibration;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Overlay\ItemText;
use Ortholex\Core\Overlay\OverlayItem;
use Ortholex\Core\Overlay\OverlayMoment;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\CommitPlan;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Settings\SettingError;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\World\PackAlarm;

/** The simulated flight controller: a processor with firmware or only a bootloader, answering bytes with bytes. */
final readonly class Board
{
    private const BOOT_S = 0.6;
    private const ANSWER_S = 0.0002;
    private const PAGE_WRITE_S = 0.022;
    private const PAGE_READ_S = 0.003;
    private const KEEP_S = 0.15;

    /** As a hand turns it, deg/s. */
    private const HAND_DPS = 40.0;

    /** A rehearsal that nobody goes on with ends after, s. */
    private const REHEARSE_S = 10.0;

    /** It listens at least and at most for, s. */
    private const LISTENS_S = 0.25;

    private const LONGEST_LISTEN_S = 1.2;

    /** @param \Closure(): FlashFile $chipFlash of the overlay chip: it is only there once somebody asks for it */
    public function __construct(
        private BoardModel $model,
        private CraftPhysics $physics,
        private WorldState $state,
        private FlashFile $flash,
        private Catalogue $catalogue,
        private Pace $pace,
        private DriveTrain $drive,
        private \Closure $chipFlash,
        private RecorderMemory $recorder,
    ) {
    }

    public function powerOn(): void
    {
        $this->restart();
    }

    public function restart(): void
    {
        $s = $this->state;
        $s->bootedAt = $this->pace->now();
        $s->teach = null;
        $label = $s->stayInBootloader ? null : FirmwareLabel::read($this->flash);
        if (null === $label || $label->hardwareId !== $this->model->hardwareId) {
            // Whole firmware of another board starts, and hangs at its first access to a pin: only the button helps.
            $s->mode = null === $label ? Mode::Bootloader : Mode::Dead;
            $s->running = [];
            $s->runningVersion = '';

            return;
        }
        $s->mode = Mode::Firmware;
        $s->arming = [];
        $s->watch = [];
        $s->stopped = '';
        $s->restartDue = false;
        $s->lastGoodAt = -1.0e9;
        $s->runningVersion = $label->version->toString();
        $s->loadPct = -1.0;
        $s->running = $this->loadKept($label->version);
        $s->started = array_intersect_key($s->running, array_flip(array_column(CommitPlan::NEEDS, 0)));
    }

    /**
     * Takes bytes off the wire and gives back what the board sends; '' when it is off, booting or does not understand.
     *
     * @return array{string, float} answer, and the seconds it took
     */
    public function receive(string $bytes): array
    {
        $s = $this->state;
        if (
            Mode::Off === $s->mode
            || Mode::Dead === $s->mode
            || $this->pace->now() < $s->bootedAt + $this->pace->of(self::BOOT_S)
        ) {
            return ['', 0.0];
        }
        $out = '';
        $took = 0.0;
        while (null !== ($frame = Message::take($bytes))) {
            if ([] !== $s->faults) {
                ++$s->requests;
            }
            $s->opened = true;
            [$answer, $seconds] = Mode::Bootloader === $s->mode ? $this->bootloader($frame) : $this->firmware($frame);
            $wire = $answer->encode();
            if (\in_array('noisy_cable', $s->faults, true) && 0 === $s->requests % 12) {
                $wire[\strlen($wire) >> 1] = \chr(\ord($wire[\strlen($wire) >> 1]) ^ 0x24);
            }
            $out .= $wire;
            $took += $seconds;
        }

        return [$out, $took];
    }

    /** What the flash holds, whether it runs or not. */
    public function version(): ?Version
    {
        return FirmwareLabel::read($this->flash)?->version;
    }

    /** @return array{float, float, float} roll, pitch and yaw that the board believes, through its mounting setting; deg */
    public function attitude(): array
    {
        $s = $this->state;
        $set = static fn (string $axis): float => (float) ($s->running["mounting.{$axis}_deg"] ?? 0.0);
        // By the same sensor, with the same offsets, as calibrates it.
        [$x, $y, $z] = $this->forceAtRest($this->pace->now());
        $size = sqrt($x ** 2 + $y ** 2 + $z ** 2);
        $g = Rotation::degrees($set('roll'), $set('pitch'), $set('yaw'))->apply([-$x / $size, -$y / $size, -$z / $size]);
        $g = Rotation::degrees((float) ($s->running['level.roll_deg'] ?? 0.0), (float) ($s->running['level.pitch_deg'] ?? 0.0), 0.0)->apply(
            $g,
        );
        // Hands and desk are never quite still.
        $t = $this->pace->now();

        return [
            rad2deg(atan2($g[1], $g[2])) + 0.05 * sin(3.1 * $t),
            rad2deg(asin(max(-1.0, min(1.0, -$g[0])))) + 0.05 * sin(2.3 * $t),
            0.4 * sin(0.05 * $t),
        ];
    }

    /** @return array{float, float, float} the direction of gravity in the board's own axes, as it really lies */
    private function downAsSeen(float $now): array
    {
        $lie = Lie::of($this->state, $now);
        $crooked = Rotation::degrees($this->physics->levelFault[0], $this->physics->levelFault[1], 0.0);

        return Rotation::degrees(...$this->physics->mountedDeg)->undo($crooked->undo($lie->undo([0.0, 0.0, 1.0])));
    }

    /** @return array{float, float, float} specific force, g: gravity turned about, with the sensor's small offsets */
    private function forceAtRest(float $now): array
    {
        $down = $this->downAsSeen($now);

        return [-$down[0] + 0.012, -$down[1] - 0.009, -$down[2] + 0.015];
    }

    /**
     * The same with the sensor's noise: white, so that no rhythm of asking can line up with it. Reckoned from the time alone: a sum of
     * four even ones, near enough to normal, of 5.8 mg.
     *
     * @return array{float, float, float}
     */
    private function accelerometer(float $now): array
    {
        $force = $this->forceAtRest($now);
        foreach (['x', 'y', 'z'] as $i => $axis) {
            $even = unpack('v4', hash('xxh64', $axis.pack('E', $now), true)) ?: [];
            $force[$i] += 0.01 * (array_sum($even) / 65535 - 2);
        }

        return $force;
    }

    /** @return array{Message, float} */
    private function firmware(Message $frame): array
    {
        $s = $this->state;
        $out = new Outputs($this->physics, $s, $this->pace, $this->drive);
        $ok = new Message($frame->kind | Message::ANSWER, '');
        switch ($frame->kind) {
            case Message::IDENTITY:
                return [new Message($frame->kind | Message::ANSWER, $this->identity('Loam', $s->runningVersion)), self::ANSWER_S];
            case Message::STATE:
                [$roll, $pitch, $yaw] = $this->attitude();
                $volts = $this->reportedV();

                return [
                    new Message(
                        $frame->kind | Message::ANSWER,
                        pack('g6C', $this->pace->now() - $s->bootedAt, $roll, $pitch, $yaw, $volts, $this->load(), $s->pack ? 1 : 0),
                    ),
                    self::ANSWER_S,
                ];
            case Message::SENSORS:
                return [
                    new Message($frame->kind | Message::ANSWER, pack('g3', ...$this->accelerometer($this->pace->now()))),
                    self::ANSWER_S,
                ];
            case Message::SPIN:
                return [$out->spin($frame->payload) ?? $ok, self::ANSWER_S];
            case Message::RELAY:
                return $out->relay($frame);
            case Message::CATCH_ESC:
                $s->catchPad = '' === $frame->payload ? 0 : \ord($frame->payload[0]);

                return [$ok, self::ANSWER_S];
            case Message::TEACH:
                return [$out->teach($frame->payload) ?? $ok, self::ANSWER_S];
            case Message::RPM:
                return [$out->rpm($frame), self::ANSWER_S];
            case Message::GYRO_BURST:
                return [$out->gyroBurst($frame), 0.35];
            case Message::READ_SETTINGS:
                return [new Message($frame->kind | Message::ANSWER, $this->settingsFrom($frame->payload)), self::ANSWER_S];
            case Message::WRITE_SETTING:
                return [$this->writeSetting($frame->payload) ?? $ok, self::ANSWER_S];
            case Message::KEEP_SETTINGS:
                $s->kept = $s->running;
                $s->keptVersion = $s->runningVersion;

                return [$ok, self::KEEP_S];
            case Message::RESTART:
                $this->restart();

                return [$ok, self::ANSWER_S];
            case Message::TO_BOOTLOADER:
                $s->stayInBootloader = true;
                $this->restart();

                return [$ok, self::ANSWER_S];
            default:
                return $this->serial($frame) ?? [new Message(Message::REFUSAL, 'the firmware does not know this request'), 0.0];
        }
    }

    /** What it takes the pack's voltage for. */
    private function reportedV(): float
    {
        $scale = SettingSet::of($this->state->running)->number('pack.divider_scale', CraftPhysics::DIVIDER);

        return $this->state->pack
            ? $this->physics->restVoltage($this->state->chargeUsed) * $this->physics->dividerFault * $scale / CraftPhysics::DIVIDER
            : 0.0;
    }

    /** What its beeper says of the pack, by what it takes its voltage for. */
    public function alarm(): PackAlarm
    {
        $s = $this->state;
        $set = SettingSet::of($s->running);
        $cell = $this->reportedV() / max(1, $set->whole('pack.cells', $this->physics->cells));

        return match (true) {
            !$s->pack || Mode::Firmware !== $s->mode => PackAlarm::None,
            $cell < $set->number('pack.flight_end_cell_v', 3.4) => PackAlarm::Ends,
            $cell < $set->number('pack.warn_cell_v', 3.6) => PackAlarm::Warns,
            default => PackAlarm::None,
        };
    }

    /** What it knows of itself when it is asked to arm. */
    private function knows(): Knowledge
    {
        $s = $this->state;
        $now = $this->pace->now();
        $set = SettingSet::of($s->running);
        [$roll, $pitch] = $this->attitude();
        $tilt = rad2deg(acos(max(-1.0, min(1.0, cos(deg2rad($roll)) * cos(deg2rad($pitch))))));
        [$roll1, $pitch1] = WorldState::TILTS[$s->tilt];
        [$roll0, $pitch0] = WorldState::TILTS[$s->tiltBefore];
        $turns = $s->tilt === $s->tiltBefore ? 0.0 : hypot($roll1 - $roll0, $pitch1 - $pitch0) / 0.25;
        $hand = Lie::tumbles($s, $now) ? self::HAND_DPS : 0.0;

        return new Knowledge(
            $tilt,
            $hand + $turns * exp(-max(0.0, $now - $s->tiltChangedAt) / 0.25),
            0.0 !== $set->number('level.roll_deg') || 0.0 !== $set->number('level.pitch_deg'),
            $this->load(),
            $s->pack ? $this->reportedV() / max(1, $set->whole('pack.cells', $this->physics->cells)) : null,
            $this->whereabouts()?->isHome() ?? false,
        );
    }

    /** @return array{Message, float}|null what concerns its UARTs; null for another request */
    private function serial(Message $frame): ?array
    {
        return match ($frame->kind) {
            Message::LISTEN => $this->listen($frame),
            Message::EDGES => [$this->edges($frame->payload), 0.12],
            Message::RADIO => [$this->radio($frame->payload), self::ANSWER_S],
            Message::REHEARSE => [$this->rehearse($frame), self::ANSWER_S],
            Message::RECORDER => (new Recorder($this->recorder, $this->state, $this->pace))->answer($frame),
            Message::SERIAL, Message::COMPASS, Message::SERVO, Message::PICTURE, Message::CHIP => $this->aid($frame),
            default => null,
        };
    }

    /** @return array{Message, float} */
    private function bootloader(Message $frame): array
    {
        $s = $this->state;
        $ok = new Message($frame->kind | Message::ANSWER, '');
        switch ($frame->kind) {
            case Message::IDENTITY:
                return [new Message($frame->kind | Message::ANSWER, $this->identity('', '')), self::ANSWER_S];
            case Message::WIPE_SETTINGS:
                $s->kept = [];
                $s->keptVersion = '';

                return [$ok, self::KEEP_S];
            case Message::WRITE_PAGE:
                return [$this->writePage($frame->payload) ?? $ok, self::PAGE_WRITE_S];
            case Message::READ_FLASH:
                if (6 !== \strlen($frame->payload)) {
                    return [new Message(Message::REFUSAL, 'a read needs address and length'), 0.0];
                }
                /** @var array{at: int, length: int} $v */
                $v = unpack('Vat/vlength', $frame->payload);

                return [
                    new Message(
                        $frame->kind | Message::ANSWER,
                        $this->flash->read($v['at'] - $this->model->flashFrom, min($v['length'], Message::MOST_PAYLOAD)),
                    ),
                    self::PAGE_READ_S,
                ];
            case Message::RUN:
            case Message::RESTART:
                $s->stayInBootloader = false;
                $this->restart();

                return [$ok, self::ANSWER_S];
            default:
                return [new Message(Message::REFUSAL, 'only the bootloader runs, which does not know this request'), 0.0];
        }
    }

    private function identity(string $product, string $version): string
    {
        $m = $this->model;

        return Message::fields([
            $m->hardwareId,
            $m->name,
            $m->processor,
            (string) $m->flashFrom,
            (string) $m->flashEnd,
            (string) $m->pageBytes,
            $m->serial,
            $product,
            $version,
            '' === $product ? '' : implode(',', FirmwareLabel::read($this->flash)->leftOut ?? []),
            '' === $product ? '' : implode(',', $m->sensors),
        ]);
    }

    /** @return array{Message, float} */
    private function listen(Message $frame): array
    {
        $f = Message::unfields($frame->payload);
        $pads = BoardPads::of($this->model->hardwareId);
        if (\count($f) < 3 || null === $pads || !isset($pads->uarts[$f[0]])) {
            return [new Message(Message::REFUSAL, 'this board has no such UART'), self::ANSWER_S];
        }
        if ('1' === $f[2] && !$pads->uarts[$f[0]]->inverts) {
            return [new Message(Message::REFUSAL, 'this UART cannot invert the signal'), self::ANSWER_S];
        }
        $seconds = max(self::LISTENS_S, min(self::LONGEST_LISTEN_S, (float) ($f[3] ?? 0.0)));
        $heard = $this->parts($pads)->heard($f[0], (float) $f[1], '1' === $f[2], $this->pace->now(), $seconds);

        return [new Message($frame->kind | Message::ANSWER, substr($heard, 0, Message::MOST_PAYLOAD)), $seconds];
    }

    /** What it makes of its position receiver; null for a board without pads. */
    public function whereabouts(): ?Whereabouts
    {
        $pads = BoardPads::of($this->model->hardwareId);

        return null === $pads ? null : new Whereabouts($pads, $this->parts($pads), $this->state, $this->pace);
    }

    /** The part of that name, as it has power or not. */
    public function powers(string $part): bool
    {
        $pads = BoardPads::of($this->model->hardwareId);

        return null !== $pads && $this->parts($pads)->isPowered(Part::all()[$part]);
    }

    private function aids(BoardPads $pads): Aids
    {
        return new Aids($this->model, $this->physics, $this->state, $this->pace, $this->drive, $this->parts($pads));
    }

    /** @return array{Message, float} */
    private function aid(Message $frame): array
    {
        $pads = BoardPads::of($this->model->hardwareId);
        if (null === $pads) {
            return [new Message(Message::REFUSAL, 'this board has no pads that are known'), self::ANSWER_S];
        }
        $aids = $this->aids($pads);

        return match ($frame->kind) {
            Message::SERIAL => $aids->serial($frame->payload),
            Message::COMPASS => $aids->compass($frame->payload, $this->forceOnCraft(...)),
            Message::SERVO => $aids->servo($frame->payload),
            Message::CHIP => $aids->chip($frame->payload, $this->chip($aids)),
            default => [$this->pictureNow($aids), self::ANSWER_S],
        };
    }

    /** The overlay chip that it can speak to; null for none. */
    private function chip(Aids $aids): ?ScryChip
    {
        $part = Part::all()['scry-d'];
        $kind = '' !== $this->model->overlayChip ? $this->model->overlayChip : ($aids->reachesChip($part) ? $part->name : '');

        return '' === $kind ? null : new ScryChip($kind, $this->state->chipHeld, ($this->chipFlash)());
    }

    private function pictureNow(Aids $aids): Message
    {
        $s = $this->state;
        $chip = $this->chip($aids);
        $kind = Message::PICTURE | Message::ANSWER;
        if (null === $chip) {
            return new Message($kind, Message::fields(['', '', '', '', '0']));
        }
        $picture = new Picture($this->physics, $s, $this->pace);
        $attitude = $this->attitude();
        $readings = $picture->readings(
            $attitude,
            $this->whereabouts()?->fix(),
            $this->reportedV(),
            $this->headingDeg(),
            $this->receiver(),
            $this->model->name,
        );
        $set = SettingSet::of($s->running);
        $moment = new OverlayMoment(
            armed: true === ($s->arming['armed'] ?? false),
            packLow: PackAlarm::None !== $this->alarm(),
            linkWeak: null !== $readings->linkPct && $readings->linkPct < 60,
        );
        [$number, $rows] = $picture->drawn($chip, $readings, $moment);

        return new Message(
            $kind,
            Message::fields([
                (string) $number,
                $set->text('overlay.raster'),
                \sprintf('%.3f', $readings->packV ?? 0.0),
                \sprintf('%.3f', $this->reportedV()),
                (string) \count($rows),
                ...$rows,
                ...array_map(static fn (OverlayItem $i): string => implode("\n", ItemText::of($i, $readings)), OverlayItem::cases()),
            ]),
        );
    }

    /** Where its nose points by its compass, deg true; null where it has none, or does not use it. */
    private function headingDeg(): ?float
    {
        $needle = \in_array('compass', $this->model->sensors, true) ? Needle::of($this->physics->compass) : null;
        $set = SettingSet::of($this->state->running);
        if (null === $needle || !$set->flag('compass.enabled')) {
            return null;
        }
        $now = $this->pace->now();
        $field = $needle->reads(Marsh::earth(), Lie::of($this->state, $now), 0.0);

        return fmod(
            Calibration::in($set)->heading($field, $this->forceOnCraft($now)) + $set->number('compass.declination_deg') + 360,
            360,
        );
    }

    /** @return array{float, float, float} specific force in the axes that it takes for the craft's, g */
    private function forceOnCraft(float $now): array
    {
        $running = SettingSet::of($this->state->running);
        $turn = Rotation::degrees(
            $running->number('mounting.roll_deg'),
            $running->number('mounting.pitch_deg'),
            $running->number('mounting.yaw_deg'),
        );

        $level = Rotation::degrees($running->number('level.roll_deg'), $running->number('level.pitch_deg'), 0.0);

        return $level->apply($turn->apply($this->accelerometer($now)));
    }

    /** The firmware's end of the radio; null for a board without pads. */
    public function receiver(): ?BoardRadio
    {
        $pads = BoardPads::of($this->model->hardwareId);
        $telemeter = new Telemeter($this->physics, $this->state, $this->attitude(), $this->whereabouts()?->fix());

        return null === $pads ? null : new BoardRadio($pads, $this->parts($pads), $this->state, $this->state->radio(), $telemeter);
    }

    /** Looks at its receiver, as it does all the time: what arms or disarms it is met as it happens. */
    public function hear(): void
    {
        if (Mode::Firmware === $this->state->mode) {
            $this->receiver()?->read($this->pace->now(), \PHP_INT_MAX, $this->knows());
            $pads = BoardPads::of($this->model->hardwareId);
            if (null !== $pads) {
                $this->aids($pads)->tellVideo();
            }
        }
    }

    private function parts(BoardPads $pads): SolderedParts
    {
        $s = $this->state;

        return new SolderedParts($pads, $s->soldered, $s->bridged, $s->cable, $s->pack, Whereabouts::plumb($s, $this->pace));
    }

    private function edges(string $payload): Message
    {
        $uart = Message::unfields($payload)[0] ?? '';
        $pads = BoardPads::of($this->model->hardwareId);
        $radio = isset($pads->uarts[$uart]) ? $this->receiver() : null;

        if (null === $radio) {
            return new Message(Message::REFUSAL, 'this board has no such UART');
        }
        $edges = $radio->edges($uart, $this->pace->now())->pack();

        return new Message(Message::EDGES | Message::ANSWER, substr($edges, 0, Message::MOST_PAYLOAD));
    }

    private function radio(string $payload): Message
    {
        /** @var array{1: int}|false $since */
        $since = 4 === \strlen($payload) ? unpack('V', $payload) : false;
        $radio = $this->receiver();
        if (false === $since || null === $radio) {
            return new Message(Message::REFUSAL, 'it takes the number of the last frame that is known');
        }

        return new Message(Message::RADIO | Message::ANSWER, $radio->read($this->pace->now(), $since[1], $this->knows())->pack());
    }

    /** For a moment it may arm with its cable in. */
    private function rehearse(Message $frame): Message
    {
        $goes = 1 === \ord($frame->payload[0] ?? '\0');
        $this->state->rehearseUntil = $goes ? $this->pace->now() + self::REHEARSE_S : -1.0e9;
        if (!$goes) {
            $this->state->arming = ['armed' => false] + $this->state->arming;
        }

        return new Message($frame->kind | Message::ANSWER, '');
    }

    private function settingsFrom(string $payload): string
    {
        $from = 2 === \strlen($payload) ? \ord($payload[0]) | (\ord($payload[1]) << 8) : 0;
        $fields = [(string) \count($this->state->running)];
        foreach (\array_slice($this->state->running, $from, 80, true) as $name => $value) {
            $fields[] = $name;
            $fields[] = (string) json_encode($value, \JSON_PRESERVE_ZERO_FRACTION);
        }

        return Message::fields($fields);
    }

    private function writeSetting(string $payload): ?Message
    {
        $f = Message::unfields($payload);
        if (2 !== \count($f)) {
            return new Message(Message::REFUSAL, 'a setting needs a name and a value');
        }
        $version = Version::parse($this->state->runningVersion);
        $need = 1 === preg_match('~^uart\.\w+\.role$~', $f[0]) ? CommitPlan::NEEDS[trim($f[1], '"')] ?? null : null;
        if (null !== $need && isset($this->state->started[$need[0]]) && $this->state->started[$need[0]] !== $need[1]) {
            return new Message(Message::REFUSAL, "this job needs $need[0] switched on, and a restart with it");
        }
        try {
            $setting = $this->catalogue->get($f[0], $version);
            $value = $setting->check(json_decode($f[1]), $version);
            $this->state->restartDue = $this->state->restartDue || ($setting->restart && ($this->state->running[$f[0]] ?? null) !== $value);
            $this->state->running[$f[0]] = $value;
            $this->state->loadPct = -1.0;
        } catch (SettingError $e) {
            return new Message(Message::REFUSAL, $e->reason);
        }

        return null;
    }

    private function writePage(string $payload): ?Message
    {
        $size = $this->model->pageBytes;
        if (\strlen($payload) !== 4 + $size) {
            return new Message(Message::REFUSAL, "a page is $size bytes");
        }
        /** @var array{at: int} $v */
        $v = unpack('Vat', $payload);
        $offset = $v['at'] - $this->model->flashFrom;
        if ($offset < 0 || $offset + $size > $this->model->flashBytes() || 0 !== $offset % $size) {
            return new Message(Message::REFUSAL, 'that address is no page of this flash');
        }
        if (\in_array('worn_flash', $this->state->faults, true) && 17 === intdiv($offset, $size)) {
            return new Message(Message::REFUSAL, 'the page does not hold its bytes');
        }
        $this->flash->write($offset, substr($payload, 4));

        return null;
    }

    private function load(): float
    {
        $s = $this->state;
        if ($s->loadPct < 0) {
            $current = Migration::between(
                $this->catalogue,
                SettingSet::of($s->running),
                Version::parse($s->runningVersion),
                Version::parse(Catalogue::CURRENT),
            )->settings;
            $s->loadPct = LoopLoad::of(
                $current,
                \count($this->physics->frame->motors),
                $this->model->processor,
                FirmwareLabel::read($this->flash)->leftOut ?? [],
            )->percent;
        }

        return $s->loadPct;
    }

    /**
     * What the firmware makes of the settings area: names it knows, values it can take, defaults for the rest.
     *
     * @return array<string, float|int|bool|string>
     */
    private function loadKept(Version $version): array
    {
        $settings = $this->catalogue->defaults($version)->toArray();
        foreach ($this->state->kept as $name => $value) {
            if (isset($settings[$name])) {
                try {
                    $settings[$name] = $this->catalogue->get($name, $version)->check($value, $version);
                } catch (SettingError) {
                    // The firmware silently falls back to its default: that is why settings are carried by Ortholex.
                    continue;
                }
            }
        }

        return $settings;
    }
}
