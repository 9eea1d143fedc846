<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;
use Ortholex\Core\Wiring\Wiring;

/** Which part of a craft has a job, and at which port it hangs by its drawing. */
final readonly class Ports
{
    /** @return array{Part, string}|null the part and its UART; null where none is drawn */
    public function of(Craft $craft, PartRole $role): ?array
    {
        $board = BoardPads::of($craft->hardwareId ?? '');
        if (null === $board) {
            return null;
        }
        $wiring = Wiring::of($board, $craft->wires['parts'] ?? [], $craft->wires['wires'] ?? [], $craft->wires['bridged'] ?? []);
        foreach ($wiring->parts as $part) {
            if ($part->role === $role && isset($wiring->uarts[$part->id])) {
                return [$part, (string) $wiring->uarts[$part->id]];
            }
        }

        return null;
    }

    /** Whether the part is on the craft's list, drawn or not. */
    public function has(Craft $craft, PartRole $role): bool
    {
        $all = Part::all();
        foreach ($craft->wires['parts'] ?? [] as $id) {
            if (($all[$id] ?? null)?->role === $role) {
                return true;
            }
        }

        return false;
    }

    /** Whether its supply is dead on the cable alone. */
    public function needsPack(Craft $craft, Part $part): bool
    {
        foreach ($craft->wires['wires'] ?? [] as [$pin, $to]) {
            $pad = BoardPads::of($craft->hardwareId ?? '')?->pads()[$to] ?? null;
            if ($pin === "$part->id.v" && null !== $pad && !$pad->aliveOnUsb) {
                return true;
            }
        }

        return false;
    }
}
