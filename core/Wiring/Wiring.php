<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

use Ortholex\Core\Craft\SettingSet;

/**
 * Wires drawn from pads of parts to pads of the board: what is wrong with them, and the settings that follow.
 */
final readonly class Wiring
{
    /** Voltages that differ by less are the same. */
    private const SAME_V = 1e-6;

    /**
     * @param array<string, Part>         $parts
     * @param list<array{string, string}> $wires  pin of a part, pad of the board
     * @param list<WiringFault>           $faults
     * @param array<string, string>       $uarts  part id => UART it hangs on, or the first of them
     * @param array<string, list<string>> $ports  part id => all UARTs that its wires end at
     */
    private function __construct(
        public BoardPads $board,
        public array $parts,
        public array $wires,
        public array $faults,
        public array $uarts,
        private array $ports,
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
        $straight = self::straightened($wires, $pins, $pads);
        $faults = $byPart = $onUart = [];
        foreach ($straight as $i => [$pinId, $padId]) {
            [$part, $pin] = $pins[$pinId];
            $pad = $pads[$padId];
            array_push($faults, ...self::atWire($part, $pin, $pad, $i), ...self::atJumper($part, $pad, $bridged, $i));
            if ($pin->isData() && $pad->isData()) {
                $byPart[$part->id][$pad->uart][] = $i;
                $onUart[$pad->uart][$part->id] = $part;
            }
        }
        $uarts = $all = [];
        foreach ($byPart as $id => $ports) {
            $names = array_map('strval', array_keys($ports));
            if (\count($names) > max(1, $parts[$id]->voices())) {
                $faults[] = WiringFault::of(WiringCode::SpreadOverUarts, $parts[$id], uarts: self::named($names));
                continue;
            }
            sort($names);
            $uarts[$id] = $names[0];
            $all[$id] = $names;
            array_push($faults, ...self::atUart($parts[$id], $board->uarts[$names[0]], $ports[$names[0]][0]));
        }
        foreach ($onUart as $uart => $sharing) {
            array_push($faults, ...self::sharing($board->uarts[(string) $uart], array_values($sharing)));
        }
        foreach ($parts as $part) {
            array_push($faults, ...self::missing($part, $straight));
        }

        return new self($board, $parts, $straight, $faults, $uarts, $all);
    }

    /**
     * @param list<array{string, string}>      $wires ends in either order
     * @param array<string, array{Part, Pad}>  $pins  by id
     * @param array<string, Pad>               $pads  by id
     *
     * @return list<array{string, string}> from pin to pad; what joins neither is left out
     */
    private static function straightened(array $wires, array $pins, array $pads): array
    {
        $straight = [];
        foreach ($wires as [$a, $b]) {
            [$pin, $pad] = isset($pins[$a]) ? [$a, $b] : [$b, $a];
            if (isset($pins[$pin], $pads[$pad])) {
                $straight[] = [$pin, $pad];
            }
        }

        return $straight;
    }

    /** @return list<WiringFault> */
    private static function atWire(Part $part, Pad $pin, Pad $pad, int $wire): array
    {
        $kinds = [$pin->kind, $pad->kind];
        $supply = \in_array(PadKind::Power, $kinds, true);
        $fault = match (true) {
            $kinds === [PadKind::Power, PadKind::Power] => self::atSupply($part, $pad, $wire),
            $kinds === [PadKind::Ground, PadKind::Ground] => null,
            \in_array(PadKind::Ground, $kinds, true) => WiringFault::of(
                $supply ? WiringCode::ShortCircuit : WiringCode::DataOnGround,
                $part,
                $wire,
            ),
            $supply => WiringFault::of(WiringCode::SupplyOnData, $part, $wire),
            PadKind::Both !== $pin->kind && $pin->kind === $pad->kind => WiringFault::of(
                WiringCode::Crossed,
                $part,
                $wire,
                pin: $pin->label,
                pad: $pad->label,
            ),
            $kinds === [PadKind::Both, PadKind::Receives] => WiringFault::of(
                WiringCode::OneWireOnReceivePad,
                $part,
                $wire,
                pad: $pad->label,
            ),
            default => null,
        };

        return null === $fault ? [] : [$fault];
    }

    private static function atSupply(Part $part, Pad $rail, int $wire): ?WiringFault
    {
        return match (true) {
            $rail->volts > $part->mostV + self::SAME_V => WiringFault::of(
                WiringCode::VoltageTooHigh,
                $part,
                $wire,
                most_v: $part->mostV,
                rail: $rail->label,
            ),
            $rail->volts < $part->leastV - self::SAME_V => WiringFault::of(
                WiringCode::VoltageTooLow,
                $part,
                $wire,
                least_v: $part->leastV,
                rail: $rail->label,
            ),
            !$rail->aliveOnUsb => WiringFault::of(WiringCode::RailDeadOnUsb, $part, $wire, rail: $rail->label),
            default => null,
        };
    }

    /**
     * @param list<string> $bridged
     *
     * @return list<WiringFault>
     */
    private static function atJumper(Part $part, Pad $pad, array $bridged, int $wire): array
    {
        return null === $pad->bridge || \in_array($pad->bridge, $bridged, true)
            ? []
            : [WiringFault::of(WiringCode::JumperOpen, $part, $wire, pad: $pad->label, jumper: $pad->bridge)];
    }

    /** @return list<WiringFault> */
    private static function atUart(Part $part, Uart $uart, int $wire): array
    {
        $faults = [];
        if ($part->inverted && !$uart->inverts) {
            $faults[] = WiringFault::of(WiringCode::UartCannotInvert, $part, $wire, uart: "uart_$uart->id");
        }
        if ($part->halfDuplex && !$uart->halfDuplex) {
            $faults[] = WiringFault::of(WiringCode::UartCannotHalfDuplex, $part, $wire, uart: "uart_$uart->id");
        }
        if ($part->baud > $uart->mostBaud) {
            $faults[] = WiringFault::of(
                WiringCode::UartTooSlow,
                $part,
                $wire,
                uart: "uart_$uart->id",
                most_baud: $uart->mostBaud,
                baud: $part->baud,
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
        if (\count($parts) < 2 || self::mayShare($parts)) {
            return [];
        }
        $names = array_map(static fn (Part $p): string => $p->name, $parts);

        return [WiringFault::of(WiringCode::UartShared, $parts[1], names: $names, uart: "uart_$uart->id")];
    }

    /**
     * Only one that merely speaks and one that merely listens, at one rate.
     *
     * @param list<Part> $parts
     */
    private static function mayShare(array $parts): bool
    {
        $kinds = [];
        foreach ($parts as $part) {
            $data = array_values(array_filter($part->pins, static fn (Pad $pin): bool => $pin->isData()));
            $kinds[] = 1 === \count($data) ? $data[0]->kind : PadKind::Both;
        }

        return 2 === \count($parts)
            && \in_array(PadKind::Receives, $kinds, true)
            && \in_array(PadKind::Transmits, $kinds, true)
            && $parts[0]->baud === $parts[1]->baud
            && $parts[0]->inverted === $parts[1]->inverted;
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
            return [WiringFault::of(WiringCode::NotWired, $part)];
        }
        $faults = [];
        foreach ($open as $pin) {
            $faults[] = match ($pin->kind) {
                PadKind::Ground => WiringFault::of(WiringCode::NoGround, $part),
                PadKind::Power => WiringFault::of(WiringCode::NoSupply, $part),
                PadKind::Transmits => WiringFault::of(WiringCode::NotHeard, $part),
                PadKind::Receives, PadKind::Both => WiringFault::of(WiringCode::CannotBeTold, $part, pin: $pin->label),
            };
        }

        return $faults;
    }

    /**
     * @param list<string> $uarts ids
     *
     * @return list<string> names that words can be found for
     */
    private static function named(array $uarts): array
    {
        return array_map(static fn (string $id): string => "uart_$id", $uarts);
    }

    /** @return list<WiringFault> */
    public function refusals(): array
    {
        return array_values(array_filter($this->faults, static fn (WiringFault $f): bool => $f->refuses));
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
            $settings = array_merge($settings, $part->features);
            foreach ($this->ports[$id] as $port) {
                $settings = array_merge($settings, [
                    "uart.$port.role" => $part->role->value,
                    "uart.$port.baud" => (string) $part->baud,
                    "uart.$port.inverted" => $part->inverted,
                    "uart.$port.half_duplex" => $part->halfDuplex,
                ]);
            }
        }

        return SettingSet::of($settings)->among($known);
    }
}
