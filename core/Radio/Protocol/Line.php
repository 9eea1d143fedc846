<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** How the bits of one byte stand on a wire: a start bit, eight data bits with the least first, parity or none, stop bits. */
final readonly class Line
{
    /** @param bool $inverted whether the line rests low */
    public function __construct(public float $baud, public Parity $parity, public int $stopBits, public bool $inverted)
    {
    }

    /** Bits of one byte, all told. */
    public function bits(): int
    {
        return 9 + (Parity::Even === $this->parity ? 1 : 0) + $this->stopBits;
    }

    public function at(float $baud, bool $inverted): self
    {
        return new self($baud, $this->parity, $this->stopBits, $inverted);
    }

    /** Seconds that so many bytes take. */
    public function seconds(int $bytes): float
    {
        return ($bytes * $this->bits()) / $this->baud;
    }
}
