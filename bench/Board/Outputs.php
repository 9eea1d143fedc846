<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Drive\DriveTrain;
use Ortholex\Bench\Esc\Esc;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\Message;

/** The output pads of a board: what is driven through them, relayed over them, and comes back on them. */
final readonly class Outputs
{
    private const SPIN_S = 0.5;
    private const MOST_SPIN_PCT = 15.0;

    /** Where who asks says that the shafts are bare. */
    private const MOST_BARE_PCT = 60.0;

    private const ANSWER_S = 0.0002;

    public function __construct(private CraftPhysics $physics, private WorldState $state, private Pace $pace, private DriveTrain $drive)
    {
    }

    public function spin(string $payload): ?Message
    {
        $s = $this->state;
        /** @var array{pad: int, pct: float}|false $v */
        $v = \in_array(\strlen($payload), [5, 6], true) ? unpack('Cpad/gpct', $payload) : false;
        $most = 6 === \strlen($payload) && "\1" === $payload[5] ? self::MOST_BARE_PCT : self::MOST_SPIN_PCT;
        if (false === $v || !is_finite($v['pct'])) {
            return new Message(Message::REFUSAL, 'a spin needs pad and percent');
        }
        if ($v['pct'] <= 0) {
            $s->spinUntil = 0.0;

            return null;
        }
        if (!$s->pack) {
            return new Message(Message::REFUSAL, 'the motors have no power; connect the flight pack');
        }
        if ($v['pct'] > $most) {
            return new Message(Message::REFUSAL, 'that is too much for a gentle spin');
        }
        if (null !== $s->teach) {
            return new Message(Message::REFUSAL, 'the outputs are held for ESC calibration; end it first');
        }
        if ($s->spinPad !== $v['pad'] || abs($s->spinPct - $v['pct']) > 1e-6 || $this->pace->now() >= $s->spinUntil) {
            $s->spinSince = $this->pace->now();
        }
        $s->spinPad = $v['pad'];
        $s->spinPct = $v['pct'];
        $s->spinUntil = $this->pace->now() + self::SPIN_S;
        if ($s->props) {
            $s->bite();
        }

        return null;
    }

    /** @return array{Message, float} */
    public function relay(Message $frame): array
    {
        $s = $this->state;
        $pad = '' === $frame->payload ? 0 : \ord($frame->payload[0]);
        if (!$s->pack) {
            return [new Message(Message::REFUSAL, 'the ESCs have no power; connect the flight pack'), self::ANSWER_S];
        }
        if (!$s->escsListen) {
            return [
                new Message(
                    Message::REFUSAL,
                    'the ESCs were powered before the board was linked and listen only to the motor signal; take the pack off and on again',
                ),
                self::ANSWER_S,
            ];
        }
        $s->spinUntil = 0.0;
        // The wire belongs to the place; the shy one stays shy wherever it sits.
        $loose = $this->isRearLeft($pad) && \in_array('loose_signal_wire', $s->faults, true);
        $shy = $this->isRearLeft($s->escOn($pad)) && \in_array('shy_esc', $s->faults, true);
        if ($loose || $shy) {
            ++$s->relays;
            if ($loose || 1 === $s->relays % 2) {
                return [new Message($frame->kind | Message::ANSWER, ''), 0.05];
            }
        }
        [$bytes, $took] = $this->drive->withEsc($s, $pad, static fn (Esc $esc): array => $esc->receive(substr($frame->payload, 1))) ?? [
            '',
            0.05,
        ];

        return [new Message($frame->kind | Message::ANSWER, $bytes), $took];
    }

    private function isRearLeft(int $pad): bool
    {
        return Place::RearLeft->value === ($this->physics->wiredPads[$pad] ?? '');
    }

    public function teach(string $payload): ?Message
    {
        $s = $this->state;
        $step = TeachStep::tryFrom($payload);
        if (null === $step) {
            return new Message(Message::REFUSAL, 'a calibration step is full, zero or end');
        }
        if (TeachStep::Full === $step && $s->pack) {
            return new Message(Message::REFUSAL, 'full output with the pack on would spin every motor; take the pack off first');
        }
        $s->teach = TeachStep::End === $step ? null : $step;
        $s->spinUntil = 0.0;
        $this->drive->teach($s);

        return null;
    }

    /** Electrical rpm since the outputs last changed, at most a second of it: one answer in five milliseconds. */
    public function rpm(Message $frame): Message
    {
        $s = $this->state;
        $pad = '' === $frame->payload ? 0 : \ord($frame->payload[0]);
        $esc = $s->esc($pad);
        if (
            true !== ($s->running['motors.rpm_feedback'] ?? false)
            || !MotorSignal::in(SettingSet::of($s->running))->isDigital()
        ) {
            return new Message(Message::REFUSAL, 'rpm feedback is off');
        }
        if (Mode::Firmware !== $esc->mode || 'Withy' !== $esc->family || !Version::parse($esc->version)->hasReachedNumber('1.2')) {
            return new Message(Message::REFUSAL, "the ESC on output $pad does not answer on the signal wire");
        }
        $driven = $this->pace->now() < $s->spinUntil && (0 === $s->spinPad || $pad === $s->spinPad);
        $since = max(0.0, min(1.0, ($this->pace->now() - $s->spinSince) / max(0.02, $this->pace->of(1.0))));
        $count = max(4, (int) ($since * 200));
        $loose = $this->isRearLeft($pad) && \in_array('loose_signal_wire', $s->faults, true);
        $erpm = '';
        foreach ($this->drive->rotor($s, $pad)->rpm($driven ? $this->drive->felt($s, $pad) : 0.0, $this->pace->now(), $count) as $rpm) {
            $erpm .= pack('V', (int) round(($rpm * $this->physics->magnets) / 2));
        }

        return new Message($frame->kind | Message::ANSWER, pack('g', $loose ? 7.3 : 0.0).$erpm);
    }

    /** 2048 raw samples at 3200 per second: what turns, shakes the board at its true speed, out of balance as it is. */
    public function gyroBurst(Message $frame): Message
    {
        $s = $this->state;
        $axis = '' === $frame->payload ? 0 : \ord($frame->payload[0]);
        $seed = (int) ($this->pace->now() * 1e3) & 0x7FFFFFFF;
        $motors = array_flip($this->physics->frame->places());
        $hz = [];
        foreach ($this->drive->turning($s) as ['pad' => $pad, 'place' => $place]) {
            $rpm = $this->drive->rotor($s, $pad)->rpm($this->drive->felt($s, $pad), $this->pace->now(), 200);
            $hz[$motors[$place]] = array_sum($rpm) / \count($rpm) / 60;
        }
        $bytes = '';
        foreach ((new DeskShake($this->physics, $s->faults))->samples($hz, $axis, 2048, 3200.0, $seed) as $dps) {
            $bytes .= pack('v', ((int) round($dps * 16.4)) & 0xFFFF);
        }

        return new Message($frame->kind | Message::ANSWER, pack('g', 3200.0).$bytes);
    }
}
