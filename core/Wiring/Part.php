<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** A peripheral: its pins, what supply it takes, how it speaks, and which settings it needs elsewhere. */
final readonly class Part
{
    /**
     * @param string                               $role     job of the UART it hangs on
     * @param list<Pad>                            $pins
     * @param array<string, float|int|bool|string> $features settings that must stand before its UART's do
     */
    private function __construct(
        public string $id,
        public string $name,
        public string $role,
        public array $pins,
        public float $leastV,
        public float $mostV,
        public int $baud,
        public bool $inverted,
        public bool $halfDuplex,
        public array $features,
        public string $about,
    ) {
    }

    /** @return array<string, self> all parts that are known, by id */
    public static function all(): array
    {
        $parts = [];
        foreach (
            [
                self::make(
                    'rill-c',
                    'Rill C',
                    'receiver',
                    ['v', 'gnd', 'tx', 'rx'],
                    [4.0, 5.5],
                    420000,
                    false,
                    false,
                    ['receiver.protocol' => 'crsf'],
                    'receiver; CRSF with telemetry on the same two wires',
                ),
                self::make(
                    'rill-s',
                    'Rill S',
                    'receiver',
                    ['v', 'gnd', 'tx'],
                    [4.0, 5.5],
                    100000,
                    true,
                    false,
                    ['receiver.protocol' => 'sbus'],
                    'receiver; SBUS, inverted, it only speaks',
                ),
                self::make(
                    'rill-port',
                    'Rill S, telemetry pin',
                    'telemetry',
                    ['gnd', 'one'],
                    null,
                    57600,
                    true,
                    true,
                    ['telemetry.enabled' => true],
                    'telemetry; inverted, both ways on one wire',
                ),
                self::make(
                    'plumb-g2',
                    'Plumb G2',
                    'gps',
                    ['v', 'gnd', 'tx', 'rx'],
                    [3.3, 5.5],
                    38400,
                    false,
                    false,
                    ['location.enabled' => true],
                    'GPS; NMEA 0183',
                ),
                self::make(
                    'heron-400',
                    'Heron 400',
                    'video',
                    ['v', 'gnd', 'one'],
                    [7.0, 26.0],
                    9600,
                    false,
                    true,
                    ['video.enabled' => true],
                    'video transmitter; control both ways on one wire',
                ),
                self::make(
                    'ledger-m',
                    'Ledger M',
                    'recorder',
                    ['v', 'gnd', 'rx'],
                    [3.0, 3.6],
                    230400,
                    false,
                    false,
                    ['recorder.kind' => 'serial'],
                    'log recorder; 3.3 V, it only listens',
                ),
                self::make(
                    'scry-d',
                    'Scry D',
                    'overlay',
                    ['v', 'gnd', 'tx', 'rx'],
                    [4.4, 5.5],
                    115200,
                    false,
                    false,
                    ['overlay.enabled' => true],
                    'overlay for digital video, by serial',
                ),
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

    /**
     * @param list<string>                         $pins
     * @param array{float, float}|null             $volts null when it is fed elsewhere
     * @param array<string, float|int|bool|string> $features
     */
    private static function make(
        string $id,
        string $name,
        string $role,
        array $pins,
        ?array $volts,
        int $baud,
        bool $inverted,
        bool $halfDuplex,
        array $features,
        string $about,
    ): self {
        $made = [];
        foreach ($pins as $pin) {
            $made[] = match ($pin) {
                'v' => Pad::pin("$id.v", null === $volts ? 'V' : \sprintf('%g–%g V', $volts[0], $volts[1]), Pad::POWER),
                'gnd' => Pad::pin("$id.gnd", 'GND', Pad::GROUND),
                'tx' => Pad::pin("$id.tx", 'TX', Pad::TRANSMITS),
                'rx' => Pad::pin("$id.rx", 'RX', Pad::RECEIVES),
                default => Pad::pin("$id.one", 'T/R', Pad::BOTH),
            };
        }

        return new self($id, $name, $role, $made, $volts[0] ?? 0.0, $volts[1] ?? 0.0, $baud, $inverted, $halfDuplex, $features, $about);
    }
}
