<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** The solder points of a make of board, as its drawing shows them, and what its serial ports can do. */
final readonly class BoardPads
{
    private const MOST_BAUD = 2_000_000;
    private const SOFTWARE_BAUD = 19_200;
    private const GROUND = 'gnd';

    /**
     * @param list<Pad>           $left  from the nose back
     * @param list<Pad>           $right
     * @param array<string, Uart> $uarts
     */
    private function __construct(public string $hardwareId, public array $left, public array $right, public array $uarts)
    {
    }

    /** Null for a board whose drawing is not at hand. */
    public static function of(string $hardwareId): ?self
    {
        return match ($hardwareId) {
            'MARL-F4', 'MARL-F4S' => self::make(
                $hardwareId,
                ['v45', 'gnd', 'tx1', 'rx1', 'tx2', 'rx2', 'sw1'],
                ['v5', 'gnd', 'tx3', 'rx3:J3', 'v9', 'gnd', 'v33'],
                ['1' => [true, true], '2' => [false, true], '3' => [false, false], 'software_1' => [false, true]],
            ),
            'QUERN-F7', 'QUERN-F7-2' => self::make(
                $hardwareId,
                ['v45', 'gnd', 'tx1', 'rx1', 'tx2', 'rx2', 'tx3', 'rx3'],
                ['v5', 'gnd', 'tx4', 'rx4', 'tx6:J1', 'rx6', 'v9', 'gnd', 'v33'],
                ['1' => [true, true], '2' => [true, true], '3' => [true, true], '4' => [true, true], '6' => [true, true]],
            ),
            'TARN-H7' => self::make(
                $hardwareId,
                ['v45', 'gnd', 'tx1', 'rx1', 'tx2', 'rx2', 'tx3', 'rx3', 'gnd', 'sw1:J2'],
                ['v5', 'gnd', 'tx4', 'rx4', 'tx5', 'rx5', 'tx6', 'rx6', 'v9', 'v33'],
                [
                    '1' => [true, true],
                    '2' => [true, true],
                    '3' => [true, true],
                    '4' => [true, true],
                    '5' => [true, true],
                    '6' => [true, true],
                    // Its two pads, bridged, are one wire for both ways; its processor is quick enough for more than the others'.
                    'software_1' => [true, true, 57_600],
                ],
            ),
            default => null,
        };
    }

    /** @return array<string, Pad> by id */
    public function pads(): array
    {
        $pads = [];
        foreach ([...$this->left, ...$this->right] as $pad) {
            $pads[$pad->id] = $pad;
        }

        return $pads;
    }

    /** @return list<Pad> the supplies */
    public function rails(): array
    {
        return array_values(array_filter($this->pads(), static fn (Pad $p): bool => PadKind::Power === $p->kind));
    }

    /**
     * @param list<string>                     $left  what stands there; "rx3:J3" needs the jumper J3
     * @param list<string>                     $right
     * @param array<string|int, array{0: bool, 1: bool, 2?: int}> $uarts inverts, half-duplex, highest rate
     */
    private static function make(string $hardwareId, array $left, array $right, array $uarts): self
    {
        $ports = [];
        foreach ($uarts as $id => $can) {
            $most = str_starts_with((string) $id, 'software') ? self::SOFTWARE_BAUD : self::MOST_BAUD;
            $ports[(string) $id] = new Uart((string) $id, $can[0], $can[1], $can[2] ?? $most);
        }

        return new self($hardwareId, self::side($left, 'L'), self::side($right, 'R'), $ports);
    }

    /**
     * @param list<string> $names
     *
     * @return list<Pad>
     */
    private static function side(array $names, string $side): array
    {
        $pads = [];
        foreach ($names as $i => $name) {
            $what = explode(':', $name)[0];
            $pads[] = match ($what) {
                self::GROUND => Pad::ground("GND-$side".($i + 1)),
                'v45' => Pad::rail('4V5', '4.5 V', 4.5, true),
                'v5' => Pad::rail('5V', '5 V', 5.0, false),
                'v9' => Pad::rail('9V', '9 V', 9.0, false),
                'v33' => Pad::rail('3V3', '3.3 V', 3.3, true),
                'sw1' => Pad::data('SW1', PadKind::Transmits, 'software_1', explode(':', $name)[1] ?? null),
                default => Pad::data(
                    strtoupper($what),
                    str_starts_with($what, 'tx') ? PadKind::Transmits : PadKind::Receives,
                    substr($what, 2),
                    explode(':', $name)[1] ?? null,
                ),
            };
        }

        return $pads;
    }
}
