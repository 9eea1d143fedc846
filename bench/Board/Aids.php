<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Compass\Needle;
use Ortholex\Bench\Drive\DriveTrain;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\Sensors\Noise;
use Ortholex\Bench\Overlay\ScryChip;
use Ortholex\Bench\Position\PlumbG2;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\Sky\Marsh;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\Video\HeronModule;
use Ortholex\Bench\Wiring\SerialLine;
use Ortholex\Bench\Wiring\SolderedParts;
use Ortholex\Core\Craft\PadLoad;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Video\Wire\HeronFrame;
use Ortholex\Core\Video\Wire\HeronVerb;
use Ortholex\Core\Wiring\Part;

/** What a board does for the aids of its pilot: it speaks to what hangs on its ports, reads its compass, drives a camera's servo. */
final readonly class Aids
{
    private const ANSWER_S = 0.0002;

    /** After what it said it listens for so long, s. */
    private const LISTENS_S = 0.35;

    /** From reading to reading of the compass, s. */
    private const COMPASS_S = 0.02;

    private const MOST_READINGS = 50;

    /** A servo that is tried goes back by itself, s. */
    private const TRIED_S = 3.0;

    public function __construct(
        private BoardModel $model,
        private CraftPhysics $physics,
        private WorldState $state,
        private Pace $pace,
        private DriveTrain $drive,
        private SolderedParts $parts,
    ) {
    }

    /**
     * Says bytes at a port, and tells what came back.
     *
     * @return array{Message, float}
     */
    public function serial(string $payload): array
    {
        $f = Message::unfields($payload);
        if (3 !== \count($f) || !is_numeric($f[1]) || (float) $f[1] < 300) {
            return [new Message(Message::REFUSAL, 'it takes a port, a rate and bytes'), self::ANSWER_S];
        }
        [$uart, $baud, $bytes] = [$f[0], (float) $f[1], $f[2]];
        $all = Part::all();
        $back = '';
        foreach ([$all['plumb-g2'], $all['heron-400']] as $part) {
            if (!$this->parts->hearsFrom($part, $uart)) {
                continue;
            }
            $back .= 'plumb-g2' === $part->id ? $this->plumb($part, $uart, $bytes, $baud) : $this->heron($part, $uart, $bytes, $baud);
        }

        return [new Message(Message::SERIAL | Message::ANSWER, substr($back, 0, 4096)), self::LISTENS_S];
    }

    private function plumb(Part $part, string $uart, string $bytes, float $baud): string
    {
        $state = PlumbState::fromArray($this->state->plumb);
        $before = (float) $state->baud;
        $plumb = new PlumbG2($state, $this->state->outdoors, $this->pace);
        $answer = $plumb->hears(SerialLine::received($bytes, $baud, $before, false));
        $this->state->plumb = $state->toArray();
        if (!$this->parts->speaksOn($part, $uart)) {
            return '';
        }
        // It answers as it was asked, and goes on as it is now.
        $now = $this->pace->now();

        return SerialLine::received($answer, $before, $baud, false)
            .SerialLine::received($plumb->says($now, $now + self::LISTENS_S), (float) $state->baud, $baud, false);
    }

    /** What the board tells the video transmitter by itself: its frequency, and its power, the least until it is armed. */
    public function tellVideo(): void
    {
        $set = SettingSet::of($this->state->running);
        $part = Part::all()['heron-400'];
        $uart = '';
        foreach ($set->flag('video.enabled') ? ['1', '2', '3', '4', '5', '6'] : [] as $one) {
            $mine = $part->role->value === $set->text("uart.$one.role") && $set->flag("uart.$one.half_duplex");
            $uart = $mine && $this->parts->hearsFrom($part, $one) && $this->parts->speaksOn($part, $one) ? $one : $uart;
        }
        if ('' === $uart) {
            $this->state->videoTold = '';

            return;
        }
        $low = $set->flag('video.low_until_armed') && true !== ($this->state->arming['armed'] ?? false);
        $mhz = (int) $set->number('video.mhz', 5788);
        $mw = $low ? 1 : (int) $set->number('video.power_mw', 1);
        if ($this->state->videoTold !== "$mhz $mw") {
            $this->state->videoTold = "$mhz $mw";
            $baud = $set->number("uart.$uart.baud", 9600);
            $this->heron($part, $uart, HeronFrame::ask(HeronVerb::Tune, pack('v', $mhz)), $baud);
            $this->heron($part, $uart, HeronFrame::ask(HeronVerb::Power, pack('v', $mw)), $baud);
        }
    }

    private function heron(Part $part, string $uart, string $bytes, float $baud): string
    {
        $module = HeronModule::of($this->state->heron, $this->parts->isPowered($part), $this->pace);
        [$after, $answer] = $module->hears(SerialLine::received($bytes, $baud, HeronFrame::BAUD, false));
        $this->state->heron = $after->toArray();

        return $this->parts->speaksOn($part, $uart) ? SerialLine::received($answer, HeronFrame::BAUD, $baud, false) : '';
    }

    /**
     * Readings of the compass in its own axes, µT, each with the specific force as the board believes the craft to lie, g, and the output.
     *
     * @param \Closure(float): array{float, float, float} $force at a time
     *
     * @return array{Message, float}
     */
    public function compass(string $payload, \Closure $force): array
    {
        $needle = \in_array('compass', $this->model->sensors, true) ? Needle::of($this->physics->compass) : null;
        $count = '' === $payload ? 1 : max(1, min(self::MOST_READINGS, \ord($payload[0])));
        if (null === $needle) {
            return [new Message(Message::REFUSAL, 'this board has no compass'), self::ANSWER_S];
        }
        if (true !== ($this->state->running['compass.enabled'] ?? false)) {
            return [new Message(Message::REFUSAL, 'the compass is off'), self::ANSWER_S];
        }
        $now = $this->pace->now();
        $earth = Marsh::earth();
        $random = (new Noise(((int) ($now * 1e3)) & 0x7FFFFFFF))->block(3 * $count);
        $out = '';
        for ($i = 0; $i < $count; ++$i) {
            $t = $now + $i * self::COMPASS_S;
            $pct = $this->output($t);
            $field = $needle->reads($earth, Lie::of($this->state, $t), $pct);
            $out .= pack(
                'g7',
                $field[0] + Needle::NOISE_UT * $random[3 * $i],
                $field[1] + Needle::NOISE_UT * $random[3 * $i + 1],
                $field[2] + Needle::NOISE_UT * $random[3 * $i + 2],
                ...[...$force($t), $pct],
            );
        }

        return [new Message(Message::COMPASS | Message::ANSWER, $out), $count * self::COMPASS_S];
    }

    /** Mean of what the motors get, %. */
    private function output(float $t): float
    {
        $s = $this->state;
        if (!$s->pack || $t >= $s->spinUntil || $t < $s->spinSince) {
            return 0.0;
        }

        return \count($this->drive->turning($s)) / max(1, \count($this->physics->wiredPads)) * $s->spinPct;
    }

    /** @return array{Message, float} */
    public function servo(string $payload): array
    {
        /** @var array{pad: int, us: float}|false $v */
        $v = 5 === \strlen($payload) ? unpack('Cpad/gus', $payload) : false;
        if (false === $v || $v['us'] < 500 || $v['us'] > 2500) {
            return [new Message(Message::REFUSAL, 'it takes an output and 500 to 2500 µs'), self::ANSWER_S];
        }
        if (PadLoad::CameraTilt->value !== ($this->state->running["pad.{$v['pad']}.drives"] ?? '')) {
            return [new Message(Message::REFUSAL, "output {$v['pad']} drives no camera"), self::ANSWER_S];
        }
        $this->state->servo = ['us' => $v['us'], 'until' => $this->pace->now() + self::TRIED_S];

        return [new Message(Message::SERVO | Message::ANSWER, ''), self::ANSWER_S];
    }

    /**
     * Bytes for the overlay chip, on the board or on a port.
     *
     * @return array{Message, float}
     */
    public function chip(string $payload, ?ScryChip $chip): array
    {
        if (null === $chip) {
            return [new Message(Message::CHIP | Message::ANSWER, ''), self::LISTENS_S];
        }
        [$bytes, $took, $held] = $chip->receive($payload);
        $this->state->chipHeld = $held ?? $this->state->chipHeld;

        return [new Message(Message::CHIP | Message::ANSWER, $bytes), $took];
    }

    /** Whether a chip that hangs on a port can be spoken to as the settings say. */
    public function reachesChip(Part $part): bool
    {
        $set = SettingSet::of($this->state->running);
        foreach (['1', '2', '3', '4', '5', '6'] as $uart) {
            if (
                $part->role->value === $set->text("uart.$uart.role")
                && $this->parts->speaksOn($part, $uart)
                && $this->parts->hearsFrom($part, $uart)
                && abs($set->number("uart.$uart.baud", 115200) - $part->baud) < 0.02 * $part->baud
            ) {
                return true;
            }
        }

        return false;
    }
}
