<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

/** A firmware file, manifest or version cannot be used; the message says where and why. */
final class FirmwareError extends \RuntimeException
{
    public static function of(string $message): self
    {
        return new self($message);
    }
}
