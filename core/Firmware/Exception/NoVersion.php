<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware\Exception;

use Ortholex\Core\Firmware\FirmwareError;

/** A text that is no release number. */
final class NoVersion extends FirmwareError
{
    public static function of(string $text): self
    {
        return new self("“{$text}” is no version; it should look like 26.01 or 26.10-pre1.");
    }
}
