<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

use Ortholex\Core\Craft\SettingSet;

/**
 * Wires drawn from pads of parts to pads of the board: what is wrong with them, and the settings that follow.
 */
final readonly class Wiring
{
    /**
     * @param array<string, Part>         $parts
     * @param list<array{string, string}> $wires  pin of a part, pad of the board
     * @param list<WiringFault>           $faults
     * @param array<string, string>       $uarts  part id => UART it hangs on
     */
    private function __construct(
        public BoardPads $board,
        public array $parts,
        public array $wires,
        public array $faults,
        public array $uarts,
    ) {
    }

    /**
     * @param list<string>                $partIds
     * @param list<array{string, string}> $wires   ends in either order
     * @param list<string>                $bridged jumpers that are bridged
     */
    public static function of(BoardPads $board, array $partIds, array $wires, array $bridged): self
    {
        $parts = array_intersect_key(Part::all(), array_flip($partIds));
        $pads = $board->pads();
        $pins = [];
        foreach ($parts as $part) {
            foreach ($part->pins as $pin) {
                $pins[$pin->id] = [$part, $pin];
            }
        }
        $straight = $faults = [];
        foreach ($wires as [$a, $b]) {
            [$pin, $pad] = isset($pins[$a]) ? [$a, $b] : [$b, $a];
            if (isset($pins[$pin], $pads[$pad])) {
                $straight[] = [$pin, $pad];
            }
        }
        $byPart = $onUart = [];
        foreach ($straight as $i => [$pinId, $padId]) {
            [$part, $pin] = $pins[$pinId];
            $pad = $pads[$padId];
            foreach (self::atWire($part, $pin, $pad, $bridged) as [$weight, $text]) {
                $faults[] = new WiringFault($weight, $text, $part->id, $i);
            }
            if ($pin->isData() && $pad->isData()) {
                $byPart[$part->id][$pad->uart][] = [$pin, $pad, $i];
                $onUart[$pad->uart][$part->id] = true;
            }
        }
        $uarts = [];
        foreach ($byPart as $id => $ports) {
            if (\count($ports) > 1) {
                $faults[] = new WiringFault(
                    WiringFault::REFUSE,
                    $parts[$id]->name.
                        ' is spread over '.
                        implode(
                            ' and ',
                            array_map(
                                static fn (string $u): string => $board->uarts[$u]->inWords(),
                                array_map('strval', array_keys($ports)),
                            ),
                        ).
                        '. Both of its data wires belong to one UART.',
                    $id,
                    null,
                );
                continue;
            }
            $uart = (string) array_key_first($ports);
            $uarts[$id] = $uart;
            foreach (self::atUart($parts[$id], $board->uarts[$uart], $ports[$uart][0][2]) as $fault) {
                $faults[] = $fault;
            }
        }
        foreach ($onUart as $uart => $ids) {
            $faults = [
                ...$faults,
                ...self::sharing($board->uarts[(string) $uart], array_map(static fn (string $id): Part => $parts[$id], array_keys($ids))),
            ];
        }
        foreach ($parts as $part) {
            $faults = [...$faults, ...self::missing($part, $straight)];
        }

        return new self($board, $parts, $straight, $faults, $uarts);
    }

    /**
     * @param list<string> $bridged
     *
     * @return list<array{WiringFault::REFUSE|WiringFault::WARN, string}>
     */
    private static function atWire(Part $part, Pad $pin, Pad $pad, array $bridged): array
    {
        $faults = [];
        if (Pad::POWER === $pin->kind && Pad::POWER === $pad->kind) {
            if ($pad->volts > $part->mostV + 1e-6) {
                $faults[] = [
                    WiringFault::REFUSE,
                    \sprintf('%s takes at most %g V; the rail %s would burn it.', $part->name, $part->mostV, $pad->label),
                ];
            } elseif ($pad->volts < $part->leastV - 1e-6) {
                $faults[] = [
                    WiringFault::REFUSE,
                    \sprintf('%s needs at least %g V; the rail %s is too low.', $part->name, $part->leastV, $pad->label),
                ];
            } elseif (!$pad->aliveOnUsb) {
                $faults[] = [
                    WiringFault::WARN,
                    \sprintf('The rail %s is dead on USB alone: %s looks faulty until the pack is on.', $pad->label, $part->name),
                ];
            }
        } elseif (Pad::GROUND === $pin->kind || Pad::GROUND === $pad->kind) {
            if ($pin->kind !== $pad->kind) {
                $faults[] = [
                    WiringFault::REFUSE,
                    Pad::POWER === $pin->kind || Pad::POWER === $pad->kind
                        ? 'This is a short circuit: a supply on ground. Nothing may be powered like this.'
                        : 'A data wire lies on ground; nothing would ever be heard on it.',
                ];
            }
        } elseif (Pad::POWER === $pin->kind || Pad::POWER === $pad->kind) {
            $faults[] = [WiringFault::REFUSE, 'A supply lies on a data pin: that can burn the pin. Move this wire.'];
        } elseif (Pad::BOTH !== $pin->kind && $pin->kind === $pad->kind) {
            $faults[] = [
                WiringFault::REFUSE,
                \sprintf(
                    'Crossed: %s of %s goes to %s. What one side transmits the other must receive; move it to the other pad of that UART.',
                    $pin->label,
                    $part->name,
                    $pad->label,
                ),
            ];
        } elseif (Pad::BOTH === $pin->kind && Pad::RECEIVES === $pad->kind) {
            $faults[] = [WiringFault::REFUSE, \sprintf('One wire for both ways goes to the transmit pad, not to %s.', $pad->label)];
        }
        if (null !== $pad->bridge && !\in_array($pad->bridge, $bridged, true)) {
            $faults[] = [
                WiringFault::REFUSE,
                \sprintf(
                    '%s is connected only when the jumper %s is bridged with solder. Bridge it, and say so on the drawing.',
                    $pad->label,
                    $pad->bridge,
                ),
            ];
        }

        return $faults;
    }

    /** @return list<WiringFault> */
    private static function atUart(Part $part, Uart $uart, int $wire): array
    {
        $faults = [];
        if ($part->inverted && !$uart->inverts) {
            $faults[] = new WiringFault(
                WiringFault::REFUSE,
                "{$part->name} speaks inverted, and ".$uart->inWords().' of this board cannot turn that about. Use a UART that can.',
                $part->id,
                $wire,
            );
        }
        if ($part->halfDuplex && !$uart->halfDuplex) {
            $faults[] = new WiringFault(
                WiringFault::REFUSE,
                "{$part->name} speaks both ways on one wire, which ".$uart->inWords().' of this board cannot. Use another.',
                $part->id,
                $wire,
            );
        }
        if ($part->baud > $uart->mostBaud) {
            $faults[] = new WiringFault(
                WiringFault::REFUSE,
                \sprintf('%s carries at most %d baud; %s needs %d.', ucfirst($uart->inWords()), $uart->mostBaud, $part->name, $part->baud),
                $part->id,
                $wire,
            );
        }

        return $faults;
    }

    /**
     * @param list<Part> $parts
     *
     * @return list<WiringFault>
     */
    private static function sharing(Uart $uart, array $parts): array
    {
        if (\count($parts) < 2) {
            return [];
        }
        $kinds = array_map(
            static fn (Part $p): string => implode('', array_map(static fn (Pad $pin): string => $pin->isData() ? $pin->kind : '', $p->pins)),
            $parts,
        );
        sort($kinds);
        if (
            2 === \count($parts)
            && [Pad::RECEIVES, Pad::TRANSMITS] === $kinds
            && $parts[0]->baud === $parts[1]->baud
            && $parts[0]->inverted === $parts[1]->inverted
        ) {
            return [];
        }
        $names = implode(' and ', array_map(static fn (Part $p): string => $p->name, $parts));

        return [
            new WiringFault(
                WiringFault::REFUSE,
                "$names both hang on ".
                    $uart->inWords().
                    '. One UART, one job; only one that merely speaks and one that merely listens, at one rate, may share.',
                $parts[1]->id,
                null,
            ),
        ];
    }

    /**
     * @param list<array{string, string}> $wires
     *
     * @return list<WiringFault>
     */
    private static function missing(Part $part, array $wires): array
    {
        $wired = array_column($wires, 0);
        $open = array_filter($part->pins, static fn (Pad $p): bool => !\in_array($p->id, $wired, true));
        if (\count($open) === \count($part->pins)) {
            return [new WiringFault(WiringFault::WARN, "{$part->name} is not wired yet.", $part->id, null)];
        }
        $faults = [];
        foreach ($open as $pin) {
            $faults[] = match ($pin->kind) {
                Pad::GROUND => new WiringFault(
                    WiringFault::REFUSE,
                    "{$part->name} has no ground wire. Without a common ground nothing it says can be read.",
                    $part->id,
                    null,
                ),
                Pad::POWER => new WiringFault(WiringFault::REFUSE, "{$part->name} has no supply.", $part->id, null),
                Pad::TRANSMITS => new WiringFault(WiringFault::REFUSE, "{$part->name} is not heard: its TX goes nowhere.", $part->id, null),
                default => new WiringFault(
                    WiringFault::WARN,
                    "{$part->name} cannot be told anything: its {$pin->label} goes nowhere.",
                    $part->id,
                    null,
                ),
            };
        }

        return $faults;
    }

    /** @return list<WiringFault> */
    public function refusals(): array
    {
        return array_values(array_filter($this->faults, static fn (WiringFault $f): bool => WiringFault::REFUSE === $f->weight));
    }

    /** Whether all parts are wired, and nothing is refused. */
    public function isWhole(): bool
    {
        return [] === $this->refusals() && \count($this->uarts) === \count($this->parts);
    }

    /**
     * The settings that follow for all parts wired without fault: role, rate, inversion, half-duplex, and the features they need.
     *
     * @param SettingSet $known settings the craft has; others are left out
     */
    public function settings(SettingSet $known): SettingSet
    {
        $wrong = array_flip(array_map(static fn (WiringFault $f): string => $f->part, $this->refusals()));
        $settings = [];
        foreach (array_keys($this->board->uarts) as $uart) {
            $settings["uart.$uart.role"] = 'none';
        }
        foreach ($this->uarts as $id => $uart) {
            $part = $this->parts[$id];
            if (isset($wrong[$id])) {
                // Left as it is, rather than taken away or set to what cannot work.
                unset($settings["uart.$uart.role"]);
                continue;
            }
            $settings = array_merge($settings, $part->features, [
                "uart.$uart.role" => $part->role,
                "uart.$uart.baud" => (string) $part->baud,
                "uart.$uart.inverted" => $part->inverted,
                "uart.$uart.half_duplex" => $part->halfDuplex,
            ]);
        }

        return SettingSet::of($settings)->among($known);
    }
}
