<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** One solder point of a board, or one pin of a part. */
final readonly class Pad
{
    public const TRANSMITS = 'transmits';
    public const RECEIVES = 'receives';
    public const BOTH = 'both ways';
    public const GROUND = 'ground';
    public const POWER = 'power';

    /**
     * @param self::*     $kind
     * @param string      $uart       for data pads of a board: 1, 2, … or software_1
     * @param float       $volts      of a rail
     * @param bool        $aliveOnUsb of a rail: whether USB alone feeds it
     * @param string|null $bridge     name of the solder jumper that must be bridged for it to work
     */
    private function __construct(
        public string $id,
        public string $label,
        public string $kind,
        public string $uart = '',
        public float $volts = 0.0,
        public bool $aliveOnUsb = false,
        public ?string $bridge = null,
    ) {
    }

    /** @param self::TRANSMITS|self::RECEIVES $kind */
    public static function data(string $id, string $kind, string $uart, ?string $bridge = null): self
    {
        return new self($id, $id, $kind, $uart, bridge: $bridge);
    }

    public static function ground(string $id): self
    {
        return new self($id, 'GND', self::GROUND);
    }

    public static function rail(string $id, string $label, float $volts, bool $aliveOnUsb): self
    {
        return new self($id, $label, self::POWER, volts: $volts, aliveOnUsb: $aliveOnUsb);
    }

    /** @param self::* $kind */
    public static function pin(string $id, string $label, string $kind): self
    {
        return new self($id, $label, $kind);
    }

    public function isData(): bool
    {
        return \in_array($this->kind, [self::TRANSMITS, self::RECEIVES, self::BOTH], true);
    }
}
