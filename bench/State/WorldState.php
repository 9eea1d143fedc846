<?php

declare(strict_types=1);

namespace Ortholex\Bench\State;

use Ortholex\Bench\Esc\EscState;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Drive\Tone;
use Ortholex\Core\Settings\Migration\FormerNames;

/**
 * The physical world around one craft, as plain values: what is plugged, which way it lies, what the board's
 * memory and processor hold. Everything that must survive a restart of Ortholex lives here and in the flash.
 */
final class WorldState
{
    public const TILTS = [
        'level' => [0, 0],
        'nose_up' => [0, 45],
        'nose_down' => [0, -45],
        'right_down' => [45, 0],
        'left_down' => [-45, 0],
        'upside_down' => [180, 0],
    ];

    /** Names and measures that it is written in; older ones are carried over as they are read. */
    public const FORMAT = 2;

    public int $format = self::FORMAT;
    public bool $cable = false;
    public bool $pack = false;
    public bool $props = true;
    public bool $transmitter = false;
    public bool $outdoors = false;
    public string $tilt = 'level';
    public string $tiltBefore = 'level';
    public float $tiltChangedAt = 0.0;

    /** Which way its nose points, deg from true north. */
    public float $headingDeg = 35.0;

    /** Since when it is turned in the hand; 0 for never. */
    public float $tumbleAt = 0.0;

    /** When its memory for logs is done with erasing. */
    public float $erasedAt = 0.0;

    /** @var array<string, mixed> the position receiver; see PlumbState */
    public array $plumb = [];

    /** @var array<string, mixed> the video transmitter; see HeronModule */
    public array $heron = [];

    /** What the board told the video transmitter last: MHz and mW. */
    public string $videoTold = '';

    /** @var array<string, float> the pulse that the camera's servo is tried with, and until when */
    public array $servo = [];

    /** The overlay chip is held in its bootloader. */
    public bool $chipHeld = false;

    /** Goes up each time the cable is moved, so that a link of before is known to be gone. */
    public int $cableMoves = 0;

    /** Goes up each time power or cable goes, which ends what was declared of props. */
    public int $powerMoves = 0;

    public bool $propsDeclaredOff = false;
    public Mode $mode = Mode::Off;
    public float $bootedAt = 0.0;
    public bool $stayInBootloader = false;

    /** @var array<string, float|int|bool|string> settings the processor works with */
    public array $running = [];

    /** @var array<string, float|int|bool|string> features it started with, which UARTs can be given jobs of */
    public array $started = [];

    /** What the processor found in its flash when it started; '' in the bootloader. */
    public string $runningVersion = '';

    /** Loop load of the running settings; negative until it was measured. */
    public float $loadPct = -1.0;

    /** @var array<string, float|int|bool|string> settings kept through power loss */
    public array $kept = [];

    public string $keptVersion = '';

    /** @var list<string> */
    public array $faults = [];

    /** The output pad that is driven for a spin check, until when, and what came of it. */
    public int $spinPad = 0;

    public float $spinUntil = 0.0;
    public float $spinPct = 0.0;

    /** When the driven outputs last changed, and so since when rpm answers count. */
    public float $spinSince = 0.0;

    public string $mishap = '';

    /** @var array<int|string, mixed> what each ESC holds, by the pad that it was first soldered to; see EscState */
    public array $escs = [];

    /** @var array<int|string, int> pad => the pad that its ESC was first soldered to, where the builder swapped some */
    public array $escAt = [];

    /** Someone on the cable has asked the board who it is. */
    public bool $opened = false;

    /** The pack came on while the board was linked, so its ESCs listen to it. */
    public bool $escsListen = false;

    /** @var list<array{string, string}> wires as they are soldered: pin of a part, pad of the board */
    public array $soldered = [];

    /** @var list<string> jumpers of the board that are bridged */
    public array $bridged = [];

    /** @var array<string, mixed> transmitter and receiver; see RadioState */
    public array $radio = [];

    /** @var array<string, mixed> the board's machine of arming; see Arming */
    public array $arming = [];

    /** When a frame came last that counts; long ago for never. */
    public float $lastGoodAt = -1.0e9;

    /** Until when it may arm with its cable in: somebody rehearses, and keeps saying so. */
    public float $rehearseUntil = -1.0e9;

    /** @var array<string, mixed> what the board watches to stop by itself; see SelfDisarm */
    public array $watch = [];

    /** @var list<string> places whose motors turn backward, as it rights itself */
    public array $righting = [];

    /** Whether self-righting has the motors. */
    public bool $rights = false;

    /** Why it stopped by itself last; '' for not. */
    public string $stopped = '';

    /** A setting that takes a restart was written since it started. */
    public bool $restartDue = false;

    /** The pad whose ESC is to be caught in its bootloader when power comes; 0 for none. */
    public int $catchPad = 0;

    /** What all outputs are held at while analogue ESCs are taught; null when they are free. */
    public ?TeachStep $teach = null;

    /** @var list<Tone> what was heard on the bench from the ESCs, newest last */
    public array $tones = [];

    /** @var array<string, string> place => the place whose motor now sits there, where the builder swapped some */
    public array $motorAt = [];

    public float $chargeUsed = 0.05;

    /** Resistance of the pack over that of a new one. */
    public float $packWorn = 1.0;

    public int $requests = 0;
    public int $relays = 0;

    /** The world does not care what was declared. */
    public function bite(): void
    {
        $this->mishap = 'A prop bit: the craft leapt off the desk and tore its cable out.';
        $this->cableMoves += $this->cable ? 1 : 0;
        $this->cable = false;
        $this->propsDeclaredOff = false;
        $this->spinUntil = 0.0;
        $this->arming = ['armed' => false] + $this->arming;
        $this->rehearseUntil = -1.0e9;
    }

    public function esc(int $pad): EscState
    {
        return EscState::fromMixed($this->escs[$this->escOn($pad)] ?? null);
    }

    /** Which ESC hangs on a pad now: the pad that it was first soldered to. */
    public function escOn(int $pad): int
    {
        return $this->escAt[$pad] ?? $pad;
    }

    public function putEsc(int $pad, EscState $esc): void
    {
        $this->escs[$this->escOn($pad)] = $esc->toArray();
    }

    /** The radio as it is now; what is changed of it is put back with putRadio(). */
    public function radio(): RadioState
    {
        return RadioState::fromArray($this->radio);
    }

    public function putRadio(RadioState $radio): void
    {
        $this->radio = $radio->toArray();
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $values = [];
        foreach (get_object_vars($this) as $name => $value) {
            $values[(string) $name] = $value;
        }

        return $values;
    }

    private function carryOver(): void
    {
        $this->kept = FormerNames::carry($this->kept);
        $this->running = FormerNames::carry($this->running);
        $this->escs = array_map(static fn (mixed $esc): array => EscState::fromFormer($esc)->toArray(), $this->escs);
        $this->format = self::FORMAT;
    }

    /** @param array<mixed> $data */
    public static function fromArray(array $data): self
    {
        $state = new self();
        foreach (array_keys(get_object_vars($state)) as $name) {
            if (isset($data[$name]) && get_debug_type($data[$name]) === get_debug_type($state->{$name})) {
                $state->{$name} = $data[$name];
            } elseif (isset($data[$name]) && \is_float($state->{$name}) && \is_int($data[$name])) {
                $state->{$name} = (float) $data[$name];
            }
        }
        $text = static fn (mixed $value): string => \is_string($value) ? $value : '';
        $state->runningVersion = FirstNumbering::now($state->runningVersion);
        $state->keptVersion = FirstNumbering::now($state->keptVersion);
        if (self::FORMAT !== ($data['format'] ?? 0)) {
            $state->carryOver();
        }
        $state->mode = Mode::tryFrom($text($data['mode'] ?? null)) ?? Mode::Off;
        $state->teach = TeachStep::tryFrom($text($data['teach'] ?? null));
        $tones = \is_array($data['tones'] ?? null) ? $data['tones'] : [];
        $state->tones = array_values(array_filter(array_map(static fn (mixed $t): ?Tone => Tone::tryFrom($text($t)), $tones)));

        return $state;
    }
}
