<?php

declare(strict_types=1);

namespace Ortholex\Bench\Wiring;

use Ortholex\Bench\Position\PlumbG2;
use Ortholex\Bench\Radio\Air;
use Ortholex\Core\Radio\Protocol\Line;
use Ortholex\Core\Radio\Protocol\Parity;
use Ortholex\Core\Radio\Wire\Edges;
use Ortholex\Core\Radio\Wire\SerialWriter;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Heard;
use Ortholex\Core\Wiring\Pad;
use Ortholex\Core\Wiring\PadKind;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;

/** The parts soldered to a board: who has power, who speaks on which UART, and what arrives there. */
final readonly class SolderedParts
{
    /** What a board can catch of the changes on a wire. */
    private const CATCH_S = 0.12;

    /**
     * @param list<array{string, string}> $wires   pin of a part, pad of the board
     * @param list<string>                $bridged jumpers that are bridged
     * @param PlumbG2|null                $plumb   what the position receiver says; null where nobody listens
     */
    public function __construct(
        private BoardPads $board,
        private array $wires,
        private array $bridged,
        private bool $usb,
        private bool $pack,
        private ?PlumbG2 $plumb = null,
    ) {
    }

    /** Bytes that a time brings to a UART, as it samples them; '' for silence. */
    public function heard(string $uart, float $baud, bool $inverted, float $now, float $seconds = 0.25): string
    {
        $arrived = '';
        foreach (Part::all() as $part) {
            if (PartRole::Receiver !== $part->role && $this->speaksOn($part, $uart)) {
                $arrived .= SerialLine::received(
                    $this->says($part, $now, $seconds),
                    $this->rate($part),
                    $baud,
                    $part->inverted !== $inverted,
                );
            }
        }

        return $arrived;
    }

    /** What the changes on a UART's wire are over a moment; the receiver there, if it is one, says what it says. */
    public function edges(string $uart, float $now, ?Air $air, ?Part $receiver): Edges
    {
        if (null !== $receiver && null !== $air && $this->speaksOn($receiver, $uart)) {
            return $air->edges($now - self::CATCH_S, $now);
        }
        foreach (Part::all() as $part) {
            if (PartRole::Receiver !== $part->role && $this->speaksOn($part, $uart)) {
                $writer = new SerialWriter(new Line((int) $this->rate($part), Parity::None, 1, $part->inverted));
                $writer->send($this->says($part, $now, self::CATCH_S), 0.0);

                return $writer->edges();
            }
        }

        return Edges::of([], []);
    }

    /** The receiver that hangs on the board, by however few wires; null for none. */
    public function receiver(): ?Part
    {
        foreach (Part::all() as $part) {
            if (PartRole::Receiver === $part->role && [] !== $this->pads($part)) {
                return $part;
            }
        }

        return null;
    }

    /** Whether what a part says reaches a UART: it has power and ground, and its wire ends at the pad that hears. */
    public function speaksOn(Part $part, string $uart): bool
    {
        $to = $this->pads($part);
        foreach ($to as $pin => $pad) {
            $hears = match ($part->pin("$part->id.$pin")?->kind) {
                PadKind::Both => PadKind::Transmits === $pad->kind,
                PadKind::Transmits => PadKind::Receives === $pad->kind,
                default => false,
            };
            if ($hears && $pad->uart === $uart && $this->isJoined($pad)) {
                return $this->isPowered($part);
            }
        }

        return false;
    }

    /** Whether what a UART says reaches a part. */
    public function hearsFrom(Part $part, string $uart): bool
    {
        $pad = $this->pads($part)['one'] ?? ($this->pads($part)['rx'] ?? null);

        return null !== $pad
            && PadKind::Transmits === $pad->kind
            && $pad->uart === $uart
            && $this->isJoined($pad)
            && $this->isPowered($part);
    }

    /** Whether a part has a supply that suits it, and ground. */
    public function isPowered(Part $part): bool
    {
        $to = $this->pads($part);
        if (PadKind::Ground !== ($to['gnd']->kind ?? null)) {
            return false;
        }
        if (null === $part->pin("$part->id.v")) {
            return true;
        }
        $rail = $to['v'] ?? null;

        return null !== $rail
            && PadKind::Power === $rail->kind
            && $rail->volts >= $part->leastV - 1e-6
            && $rail->volts <= $part->mostV + 1e-6
            && ($this->pack || ($this->usb && $rail->aliveOnUsb));
    }

    /** A pad that hangs on an open jumper goes nowhere. */
    private function isJoined(Pad $pad): bool
    {
        return null === $pad->bridge || \in_array($pad->bridge, $this->bridged, true);
    }

    /** @return array<string, Pad> by pin of the part */
    private function pads(Part $part): array
    {
        $pads = $this->board->pads();
        $to = [];
        foreach ($this->wires as [$pin, $pad]) {
            if (null !== $part->pin($pin) && isset($pads[$pad])) {
                $to[explode('.', $pin)[1]] = $pads[$pad];
            }
        }

        return $to;
    }

    /** What a part speaks at now; its maker's rate, unless it was told another. */
    private function rate(Part $part): float
    {
        return PartRole::Gps === $part->role && null !== $this->plumb ? (float) $this->plumb->baud() : (float) $part->baud;
    }

    private function says(Part $part, float $now, float $seconds): string
    {
        if (PartRole::Gps === $part->role) {
            return $this->plumb?->says($now, $now + $seconds) ?? '';
        }
        // One that is asked before it speaks says nothing by itself; what it would say is told apart by its frame all the same.
        $out = '';
        for ($i = 0; $i < 6; ++$i) {
            $out .= Heard::frame(substr(hash('sha256', "$part->id/$i/".(int) (4 * $now), true), 0, 12));
        }

        return $out;
    }
}
