<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

/** A firmware file, manifest or version cannot be used, or an image was not written; the message says where and why. */
class FirmwareError extends \RuntimeException
{
    final protected function __construct(string $message)
    {
        parent::__construct($message);
    }

    /** For what is decided above the rules: the reason in words. */
    public static function because(string $why): self
    {
        return new self($why);
    }
}
