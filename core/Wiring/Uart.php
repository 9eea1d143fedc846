<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** What one serial port of a board can do. */
final readonly class Uart
{
    /** @param bool $inverts whether it can turn the signal about for protocols that idle low */
    public function __construct(public string $id, public bool $inverts, public bool $halfDuplex, public int $mostBaud)
    {
    }
}
