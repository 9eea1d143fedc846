<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware\Exception;

use Ortholex\Core\Firmware\FirmwareError;

/** A manifest that lacks something. */
final class ManifestError extends FirmwareError
{
    public static function lacksText(string $key): self
    {
        return new self("The manifest lacks the text “{$key}”.");
    }

    public static function lacksWhole(string $key): self
    {
        return new self("The manifest lacks the whole number “{$key}”.");
    }

    public static function lacksList(string $key): self
    {
        return new self("The manifest lacks the list “{$key}”.");
    }
}
