<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Pad;
use Ortholex\Core\Wiring\PadKind;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;
use Ortholex\Core\Wiring\Wiring;

/** Parts soldered to a board as an experienced hand would: each on a UART of its own that can do what it needs, none on a wrong rail. */
final readonly class Soldering
{
    /**
     * @param list<string>                $parts   that found a place
     * @param list<array{string, string}> $wires   pin, pad
     * @param list<string>                $bridged
     * @param Wiring|null                 $wiring  all of that; null for a board whose drawing is not at hand
     * @param list<string>                $left    names of those that found none
     */
    private function __construct(
        public array $parts,
        public array $wires,
        public array $bridged,
        public ?Wiring $wiring,
        public array $left,
    ) {
    }

    /** @param list<string> $extras ids of Wiring\Part; one that is unknown finds no place */
    public static function of(string $hardwareId, array $extras): self
    {
        $board = BoardPads::of($hardwareId);
        $known = Part::all();
        $placed = $wires = $bridged = $left = $used = [];
        foreach ($extras as $id) {
            $part = $known[$id] ?? null;
            $found = null;
            foreach ($board->uarts ?? [] as $uart) {
                if (null !== $board && null !== $part && !\in_array($uart->id, $used, true)) {
                    [$more, $jumpers] = self::on($board, $part, $uart->id);
                    $tried = Wiring::of($board, [...$placed, $id], [...$wires, ...$more], [...$bridged, ...$jumpers]);
                    if ([] === $tried->refusals()) {
                        $found = [$uart->id, $more, $jumpers];
                        break;
                    }
                }
            }
            if (null === $found) {
                $left[] = $part->name ?? $id;
                continue;
            }
            $placed[] = $id;
            $used[] = $found[0];
            array_push($wires, ...$found[1]);
            array_push($bridged, ...$found[2]);
        }
        $wiring = null === $board ? null : Wiring::of($board, $placed, $wires, $bridged);

        return new self($placed, $wires, $bridged, $wiring, $left);
    }

    public function has(PartRole $role): bool
    {
        $known = Part::all();

        return [] !== array_filter($this->parts, static fn (string $id): bool => $known[$id]->role === $role);
    }

    /** @return array{list<array{string, string}>, list<string>} wires to this UART, and jumpers that they need */
    private static function on(BoardPads $board, Part $part, string $uart): array
    {
        $wires = $jumpers = [];
        foreach ($part->pins as $pin) {
            foreach ($board->pads() as $pad) {
                if (self::suits($part, $pin, $pad, $uart)) {
                    $wires[] = [$pin->id, $pad->id];
                    if (null !== $pad->bridge) {
                        $jumpers[] = $pad->bridge;
                    }
                    break;
                }
            }
        }

        return [$wires, array_values(array_unique($jumpers))];
    }

    private static function suits(Part $part, Pad $pin, Pad $pad, string $uart): bool
    {
        return match ($pin->kind) {
            PadKind::Ground => PadKind::Ground === $pad->kind,
            PadKind::Power => PadKind::Power === $pad->kind && $pad->volts >= $part->leastV && $pad->volts <= $part->mostV,
            PadKind::Transmits => PadKind::Receives === $pad->kind && $pad->uart === $uart,
            PadKind::Receives, PadKind::Both => PadKind::Transmits === $pad->kind && $pad->uart === $uart,
        };
    }
}
