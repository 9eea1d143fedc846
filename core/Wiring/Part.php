<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

use Ortholex\Core\Radio\Protocol\Protocol;

/** A peripheral: its pins, what supply it takes, how it speaks, and which settings it needs elsewhere. */
final readonly class Part
{
    /**
     * @param list<Pad>                            $pins
     * @param array<string, float|int|bool|string> $features settings that must stand before its UART's do
     */
    private function __construct(
        public string $id,
        public string $name,
        public PartRole $role,
        public array $pins,
        public float $leastV,
        public float $mostV,
        public int $baud,
        public bool $inverted,
        public bool $halfDuplex,
        public array $features,
    ) {
    }

    /** @return array<string, self> all parts that are known, by id */
    public static function all(): array
    {
        $both = [PadKind::Power, PadKind::Ground, PadKind::Transmits, PadKind::Receives];
        $speaks = [PadKind::Power, PadKind::Ground, PadKind::Transmits];
        $listens = [PadKind::Power, PadKind::Ground, PadKind::Receives];
        $oneWire = [PadKind::Power, PadKind::Ground, PadKind::Both];
        $parts = [];
        foreach (
            [
                self::make('rill-c', 'Rill C', PartRole::Receiver, $both, [4.0, 5.5], 420000, ['receiver.protocol' => 'crsf']),
                self::make('rill-s', 'Rill S', PartRole::Receiver, $speaks, [4.0, 5.5], 100000, [
                    'receiver.protocol' => 'sbus',
                ])->inverted(),
                // Pulses have no rate; their wire is sampled as any other.
                self::make('rill-p', 'Rill P', PartRole::Receiver, $speaks, [4.0, 5.5], 115200, ['receiver.protocol' => 'ppm']),
                self::make(
                    'rill-w',
                    'Rill W',
                    PartRole::Receiver,
                    [...$speaks, PadKind::Transmits, PadKind::Transmits, PadKind::Transmits],
                    [4.0, 5.5],
                    115200,
                    ['receiver.protocol' => 'pwm'],
                ),
                self::make('rill-port', 'Rill S (telemetry)', PartRole::Telemetry, [PadKind::Ground, PadKind::Both], null, 57600, [
                    'telemetry.enabled' => true,
                ])->inverted(),
                self::make('plumb-g2', 'Plumb G2', PartRole::Gps, $both, [3.3, 5.5], 38400, ['location.enabled' => true]),
                self::make('heron-400', 'Heron 400', PartRole::Video, $oneWire, [7.0, 26.0], 9600, ['video.enabled' => true]),
                self::make('ledger-m', 'Ledger M', PartRole::Recorder, $listens, [3.0, 3.6], 230400, ['recorder.writes_to' => 'wire']),
                self::make('scry-d', 'Scry D', PartRole::Overlay, $both, [4.4, 5.5], 115200, ['overlay.enabled' => true]),
            ] as $part
        ) {
            $parts[$part->id] = $part;
        }

        return $parts;
    }

    public function pin(string $id): ?Pad
    {
        foreach ($this->pins as $pin) {
            if ($pin->id === $id) {
                return $pin;
            }
        }

        return null;
    }

    /** Whether it speaks in pulses, which have no rate. */
    public function pulses(): bool
    {
        return \in_array($this->features['receiver.protocol'] ?? '', [Protocol::Ppm->value, Protocol::Pwm->value], true);
    }

    /** How many wires carry what it says. */
    public function voices(): int
    {
        return \count(array_filter($this->pins, static fn (Pad $p): bool => PadKind::Transmits === $p->kind || PadKind::Both === $p->kind));
    }

    /** The same, speaking inverted. */
    private function inverted(): self
    {
        return new self(
            $this->id,
            $this->name,
            $this->role,
            $this->pins,
            $this->leastV,
            $this->mostV,
            $this->baud,
            true,
            $this->halfDuplex,
            $this->features,
        );
    }

    /**
     * @param list<PadKind>                        $pins
     * @param array{float, float}|null             $volts    null when it is fed elsewhere
     * @param array<string, float|int|bool|string> $features
     */
    private static function make(string $id, string $name, PartRole $role, array $pins, ?array $volts, int $baud, array $features): self
    {
        $made = [];
        $voice = 0;
        foreach ($pins as $kind) {
            $made[] = match ($kind) {
                PadKind::Power => Pad::pin("$id.v", null === $volts ? 'V' : \sprintf('%g–%g V', $volts[0], $volts[1]), $kind),
                PadKind::Ground => Pad::pin("$id.gnd", 'GND', $kind),
                PadKind::Transmits => ++$voice > 1 ? Pad::pin("$id.tx$voice", "TX$voice", $kind) : Pad::pin("$id.tx", 'TX', $kind),
                PadKind::Receives => Pad::pin("$id.rx", 'RX', $kind),
                PadKind::Both => Pad::pin("$id.one", 'T/R', $kind),
            };
        }
        $halfDuplex = \in_array(PadKind::Both, $pins, true);

        return new self($id, $name, $role, $made, $volts[0] ?? 0.0, $volts[1] ?? 0.0, $baud, false, $halfDuplex, $features);
    }
}
