<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** One solder point of a board, or one pin of a part. */
final readonly class Pad
{
    /**
     * @param string      $uart       for data pads of a board: 1, 2, … or software_1
     * @param float       $volts      of a rail
     * @param bool        $aliveOnUsb of a rail: whether USB alone feeds it
     * @param string|null $bridge     name of the solder jumper that must be bridged for it to work
     */
    private function __construct(
        public string $id,
        public string $label,
        public PadKind $kind,
        public string $uart = '',
        public float $volts = 0.0,
        public bool $aliveOnUsb = false,
        public ?string $bridge = null,
    ) {
    }

    public static function data(string $id, PadKind $kind, string $uart, ?string $bridge = null): self
    {
        return new self($id, $id, $kind, $uart, bridge: $bridge);
    }

    public static function ground(string $id): self
    {
        return new self($id, 'GND', PadKind::Ground);
    }

    public static function rail(string $id, string $label, float $volts, bool $aliveOnUsb): self
    {
        return new self($id, $label, PadKind::Power, volts: $volts, aliveOnUsb: $aliveOnUsb);
    }

    public static function pin(string $id, string $label, PadKind $kind): self
    {
        return new self($id, $label, $kind);
    }

    public function isData(): bool
    {
        return $this->kind->isData();
    }
}
