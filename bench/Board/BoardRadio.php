<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Radio\Air;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Wiring\SolderedParts;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Arming\Arming;
use Ortholex\Core\Arming\ArmingInput;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Arming\Condition;
use Ortholex\Core\Arming\GuardReading;
use Ortholex\Core\Arming\SelfDisarm;
use Ortholex\Core\Arming\Stopped;
use Ortholex\Core\Craft\ArmedBy;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\RadioReading;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Stage;
use Ortholex\Core\Radio\ChannelSpan;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Radio\Protocol\FrameScan;
use Ortholex\Core\Radio\Protocol\LinkStatistics;
use Ortholex\Core\Radio\Protocol\Protocol;
use Ortholex\Core\Radio\Protocol\RadioFrame;
use Ortholex\Core\Radio\SpanError;
use Ortholex\Core\Radio\Wire\Edges;
use Ortholex\Core\Radio\Wire\FrameTiming;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\OnIn;
use Ortholex\Core\Switches\SwitchMap;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;

/** The firmware's end of the radio: which port it listens at, what it makes of the bytes, and what it does with the channels. */
final readonly class BoardRadio
{
    /** Frames are remembered for so long, s. */
    private const MEMORY_S = 1.3;

    /** Without a frame for so long there is no link. */
    private const GONE_S = 0.25;

    private SettingSet $set;

    public function __construct(
        private BoardPads $board,
        private SolderedParts $parts,
        private WorldState $state,
        private RadioState $radio,
        private Telemeter $telemeter,
    ) {
        $this->set = SettingSet::of($state->running);
    }

    public function air(): ?Air
    {
        $part = $this->parts->receiver();
        $kind = null === $part ? null : Rill::tryFrom($part->id);

        $this->radio->drops = \in_array('weak_link', $this->state->faults, true) ? max(0.3, $this->radio->drops) : $this->radio->drops;

        return null === $part || null === $kind
            ? null
            : new Air($kind, $this->radio, $this->state->transmitter, $this->parts->isPowered($part));
    }

    public function kind(): ?Rill
    {
        return Rill::tryFrom($this->parts->receiver()->id ?? '');
    }

    public function receiverName(): ?string
    {
        return $this->parts->receiver()?->name;
    }

    /** Whether the receiver has power. */
    public function isPowered(): bool
    {
        $part = $this->parts->receiver();

        return null !== $part && $this->parts->isPowered($part);
    }

    /** The changes on one UART's wire. */
    public function edges(string $uart, float $now): Edges
    {
        return $this->parts->edges($uart, $now, $this->air(), $this->parts->receiver());
    }

    /**
     * What is made of the receiver now; the board's arming goes on by it.
     *
     * @param int $since frames of higher numbers are told
     */
    public function read(float $now, int $since, Knowledge $knows): RadioReading
    {
        $air = $this->air();
        $uarts = $this->ports();
        $telemetry = $this->telemetry();
        if ([] === $uarts || null === $air) {
            return RadioReading::silent([] === $uarts ? Heard::NotSet : Heard::Silent, $this->guarded($now, null, [], $knows), $telemetry);
        }
        [$frames, $link, $heard] = $this->arrived($air, $uarts, $now);
        $first = $air->number($this->state->bootedAt);
        $last = [] === $frames ? null : $frames[\count($frames) - 1];
        $timing = FrameTiming::of(array_map(static fn (array $f): float => 1e6 * $f[1], $frames));
        $fresh = null !== $last && $now - $last[1] < self::GONE_S ? $last[2] : null;
        $us = null === $fresh ? [] : self::numbered($fresh->channelsUs);
        $this->remember($frames);
        $guard = $this->guarded($now, $fresh, $us, $knows);
        $told = [];
        foreach ($frames as [$number, $time, $frame]) {
            if ($number - $first > $since) {
                $told[] = [$number - $first, ($last[1] ?? $time) - $time, $frame->channelsUs];
            }
        }
        $flagged = \count(array_filter($frames, static fn (array $f): bool => $f[2]->lost));
        $due = \count($frames) + $timing->missing;

        return new RadioReading(
            null === $last ? 0 : $last[0] - $first,
            $heard,
            $due > 0 ? ($flagged + $timing->missing) / $due : 0.0,
            $timing->medianMs,
            $timing->spreadMs,
            $link,
            $this->mapped($us),
            array_reduce($this->on($us), static fn (int $bits, Action $a): int => $bits | $a->bit(), 0),
            $guard,
            \array_slice($told, -RadioReading::MOST_FRAMES),
            $telemetry,
        );
    }

    /**
     * @param list<array{int, float, RadioFrame}> $frames number, when it was whole, what it says
     */
    private function remember(array $frames): void
    {
        $plan = LossPlan::in($this->set);
        $throttle = $this->set->whole('channel.throttle.number', Channel::Throttle->usual());
        foreach ($frames as [, $time, $frame]) {
            if (!$frame->lost && !$frame->failsafe && $plan->counts($frame->channelsUs[$throttle - 1] ?? null)) {
                $this->state->lastGoodAt = max($this->state->lastGoodAt, $time);
            }
        }
    }

    /** @param array<int, float> $us */
    private function guarded(float $now, ?RadioFrame $fresh, array $us, Knowledge $knows): GuardReading
    {
        [$bars, $unmet, $stage, $since] = $this->arm($now, $fresh, $us, $knows);

        return new GuardReading(
            Arming::fromArray($this->state->arming)->armed,
            $bars,
            $unmet,
            $stage,
            min($since, GuardReading::LONG_S),
            Stopped::tryFrom($this->state->stopped),
        );
    }

    /** What goes back to the transmitter: where the settings say so and a wire carries it. */
    public function telemetry(): string
    {
        if (!$this->set->flag('telemetry.enabled') || !$this->reachesReceiver()) {
            return '';
        }

        return implode('', $this->telemeter->now($this->set)->frames());
    }

    private function reachesReceiver(): bool
    {
        $receiver = $this->parts->receiver();
        $kind = null === $receiver ? null : Rill::tryFrom($receiver->id);
        foreach (Part::all() as $part) {
            $own = $part === $receiver || $part->id === $receiver?->id;
            $carries = $own ? Rill::C === $kind : PartRole::Telemetry === $part->role && Rill::S === $kind;
            foreach ($carries ? array_keys($this->board->uarts) : [] as $uart) {
                $uart = (string) $uart;
                if (
                    $this->set->text("uart.$uart.role") === ($own ? PartRole::Receiver : PartRole::Telemetry)->value
                    && $this->parts->hearsFrom($part, $uart)
                    && $this->fits($part->baud, $part->inverted, $uart)
                    && $part->halfDuplex === $this->set->flag("uart.$uart.half_duplex")
                ) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @return list<string> UARTs that have the receiver's job */
    private function ports(): array
    {
        $ports = [];
        foreach (array_keys($this->board->uarts) as $uart) {
            if (PartRole::Receiver->value === $this->set->text("uart.$uart.role")) {
                $ports[] = (string) $uart;
            }
        }

        return $ports;
    }

    /**
     * @param non-empty-list<string> $uarts
     *
     * @return array{list<array{int, float, RadioFrame}>, LinkStatistics|null, Heard} number, when it was whole, what it says
     */
    private function arrived(Air $air, array $uarts, float $now): array
    {
        $part = $this->parts->receiver();
        $protocol = Protocol::tryFrom($this->set->text('receiver.protocol'));
        $kind = null === $part ? null : Rill::tryFrom($part->id);
        $speaks = array_values(array_filter($uarts, fn (string $u): bool => null !== $part && $this->parts->speaksOn($part, $u)));
        if (null === $part || null === $kind || [] === $speaks) {
            return [[], null, Heard::Silent];
        }
        $said = false;
        $frames = [];
        $link = null;
        $line = $kind->protocol()->line();
        $understood = $kind->protocol() === $protocol
            && (null === $line || $this->fits((int) $line->baud, $line->inverted, $speaks[0]));
        for ($n = $air->number(max($this->state->bootedAt, $now - self::MEMORY_S)) + 1, $last = $air->number($now); $n <= $last; ++$n) {
            $bytes = $protocol?->isSerial() && $kind->protocol()->isSerial() ? $air->bytes($n) : '';
            $frame = $air->frame($n);
            $said = $said || '' !== $bytes || null !== $frame || ($kind->protocol()->isSerial() && '' !== $air->bytes($n));
            if (!$understood) {
                continue;
            }
            if (!$protocol->isSerial()) {
                if (null !== $frame) {
                    $frames[] = [$n, $air->time($n), new RadioFrame(\array_slice($frame->channelsUs, 0, self::wires($kind, $speaks)))];
                }
                continue;
            }
            // What arrives is bytes: channels come only from frames that are whole.
            $scan = FrameScan::of($bytes, $protocol);
            $link = $scan->link ?? $link;
            foreach ($scan->frames as [, $whole]) {
                // A protocol without flags tells of a lost transmitter by a link quality of nought.
                $gone = Protocol::Crsf === $protocol && 0 === $link?->qualityPct;
                $frames[] = [$n, $air->time($n), $gone ? new RadioFrame($whole->channelsUs, true, true) : $whole];
            }
        }
        $newest = [] === $frames ? null : $frames[\count($frames) - 1];
        $heard = match (true) {
            !$said => Heard::Silent,
            !$understood => Heard::Rubbish,
            null === $newest || $now - $newest[1] > self::GONE_S => Heard::NoLink,
            $newest[2]->failsafe => Heard::Failsafe,
            default => Heard::Frames,
        };

        return [$frames, $link, $heard];
    }

    /** @param list<string> $ports that a wire a channel ends at */
    private static function wires(Rill $kind, array $ports): int
    {
        return Rill::W === $kind ? \count($ports) : 8;
    }

    /** Whether a UART, as it is set and can be set, samples a line as it is. */
    private function fits(int $baud, bool $inverted, string $uart): bool
    {
        $set = $this->set->number("uart.$uart.baud", 115200);
        $turns = $this->set->flag("uart.$uart.inverted") && $this->board->uarts[$uart]->inverts;

        return abs($set - $baud) < 0.02 * $baud && $turns === $inverted;
    }

    /**
     * @param list<float> $channelsUs
     *
     * @return array<int, float> by number, from 1
     */
    private static function numbered(array $channelsUs): array
    {
        $us = [];
        foreach ($channelsUs as $i => $value) {
            $us[$i + 1] = $value;
        }

        return $us;
    }

    /**
     * @param array<int, float> $us
     *
     * @return array{roll: float, pitch: float, yaw: float, throttle: float}
     */
    private function mapped(array $us): array
    {
        $mapped = ['roll' => 0.0, 'pitch' => 0.0, 'yaw' => 0.0, 'throttle' => 0.0];
        foreach (Channel::cases() as $stick) {
            $value = $us[$this->set->whole("channel.$stick->value.number", $stick->usual())] ?? null;
            if (null === $value) {
                continue;
            }
            try {
                $span = ChannelSpan::in($this->set, $stick);
            } catch (SpanError) {
                continue;
            }
            $mapped[$stick->value] =
                Channel::Throttle === $stick
                    ? ($span->position($value) + 1) / 2
                    : $span->position($value, $this->set->number('channel.dead_band_us', 2));
        }

        return $mapped;
    }

    /**
     * @param array<int, float> $us
     *
     * @return list<Action>
     */
    private function on(array $us): array
    {
        return SwitchMap::of($this->set, [])->on($us);
    }

    /** @return list<string> places on the stick's side, which turn backward */
    private function backward(float $roll, float $pitch): array
    {
        $places = [];
        foreach (Airframe::of($this->set)->motors as $m) {
            if ($roll * $m->y - $pitch * $m->x > 0.01) {
                $places[] = $m->place;
            }
        }

        return $places;
    }

    /**
     * The board's machines go on: link loss, arming, and what stops it by itself.
     *
     * @param array<int, float> $us
     *
     * @return array{int, int, Stage, float} masks of what forbids and of all that is unmet, stage of the plan, seconds since a good frame
     */
    private function arm(float $now, ?RadioFrame $frame, array $us, Knowledge $knows): array
    {
        $s = $this->state;
        $since = $now - $s->lastGoodAt;
        $stage = LossPlan::in($this->set)->stage($since);
        $mapped = $this->mapped($us);
        $byStick = ArmedBy::Stick === ArmedBy::in($this->set);
        $condition = new Condition(
            null !== $frame,
            $frame->failsafe ?? false,
            $mapped['throttle'],
            $knows->tiltDeg,
            $knows->turnDps,
            $knows->level,
            $knows->loadPct,
            $knows->cellV,
            $knows->fix,
            $s->restartDue,
            $s->cable && $now > $s->rehearseUntil,
        );
        $unmet = $condition->unmet($this->set);
        $forbids = Bar::mask(Condition::forbidding($unmet, $this->set));
        $machine = Arming::fromArray($s->arming);
        $watch = SelfDisarm::in($this->set)->from($s->watch);
        $righting = \in_array(Action::SelfRight, $this->on($us), true);
        $stopped = $watch->looked($now, $machine->armed, $knows->tiltDeg, $knows->turnDps, 0.0, $mapped['throttle'], $righting);
        $s->watch = $watch->toArray();
        $input = new ArmingInput(
            $mapped['yaw'],
            $mapped['throttle'],
            $byStick,
            $this->set->flag('arming.off_needs_low_throttle'),
            $stage,
            null !== $stopped || ($machine->armed && $s->cable && $now > $s->rehearseUntil),
        );
        $armZones = $this->set->text(Action::Arm->setting());
        $on = '' !== $armZones && OnIn::parse($armZones)->holds($us);
        $machine = $machine->next($input, $on, $forbids, $now);
        $s->arming = $machine->toArray();
        $s->rights = $machine->armed && $righting;
        $s->righting = $s->rights ? $this->backward($mapped['roll'], $mapped['pitch']) : [];
        $s->stopped = $machine->armed ? '' : ($stopped->value ?? $s->stopped);
        if ($machine->armed && $s->pack && $s->props) {
            $s->bite();
        }
        $waits = !$byStick && $machine->waitsForOff($on) ? Bar::OnSincePowerUp->value : 0;

        return [$forbids | $waits, Bar::mask($unmet) | $waits, $stage, $since];
    }
}
