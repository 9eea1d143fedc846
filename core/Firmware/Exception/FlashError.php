<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware\Exception;

use Ortholex\Core\Firmware\FirmwareError;

/** A page of flash that did not take. */
final class FlashError extends FirmwareError
{
    public static function pageRefused(int $address, int $times, string $why): self
    {
        return new self(
            \sprintf('The page at 0x%08X was refused %d times over (%s). ', $address, $times, rtrim($why, '.')).
                'The flash may be worn there; nothing else was changed, and it waits in its bootloader.',
        );
    }

    public static function readsOtherwise(int $address): self
    {
        return new self(\sprintf('Read-back differs at page 0x%08X. Write it again; it waits in its bootloader.', $address));
    }
}
